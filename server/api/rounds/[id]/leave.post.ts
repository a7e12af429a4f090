import { leaveRound } from '~~/server/calling/rounds/next'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('round') }, ({ asker, params, now }) => leaveRound(asker, params.id, now))
