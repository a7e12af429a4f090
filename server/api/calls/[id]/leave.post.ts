import { leaveSpoken } from '~~/server/calling/leave'
import { route } from '~~/server/routing/route'
import { leaveForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: leaveForm }, ({ asker, params, body }) => leaveSpoken(asker, params.id, body.spokenId))
