import { myCalls } from '~~/server/calling/mine'
import { route } from '~~/server/http/route'

export default route({}, ({ asker, now }) => myCalls(asker, now))
