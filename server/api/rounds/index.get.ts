import { listRounds } from '~~/server/calling/rounds/read'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => listRounds(asker, now))
