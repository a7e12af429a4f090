import { listSpoken } from '~~/server/calling/spoken'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => listSpoken(asker))
