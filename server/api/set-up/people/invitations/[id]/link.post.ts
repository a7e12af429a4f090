import { linkAnew } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('invitation') }, ({ asker, params, now }) => linkAnew(asker, params.id, now))
