import { letGo } from '~~/server/leaving/leave'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { leaveForm } from '~~/shared/schemas/people'

export default route({ params: byId('colleague'), body: leaveForm }, ({ asker, params, body, now }) => letGo(asker, params.id, body.toId, now))
