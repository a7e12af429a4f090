import { myCalls } from '~~/server/calling/mine'
import { route } from '~~/server/http/route'

export default route({}, async ({ asker, now }) => ({ calls: await myCalls(asker, now), now: now.getTime() }))
