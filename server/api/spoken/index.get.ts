import { listSpoken } from '~~/server/calling/spoken'
import { route } from '~~/server/http/route'

export default route({}, ({ asker }) => listSpoken(asker))
