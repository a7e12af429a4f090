import { listRounds } from '~~/server/calling/rounds/read'
import { route } from '~~/server/http/route'

export default route({}, ({ asker, now }) => listRounds(asker, now))
