import { holdingsOf } from '~~/server/leaving/leave'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('colleague') }, ({ asker, params }) => holdingsOf(asker, params.id))
