import { myRound } from '~~/server/calling/rounds/mine'
import { route } from '~~/server/routing/route'

export default route({}, async ({ asker, now }) => ({ round: await myRound(asker, now), now: now.getTime() }))
