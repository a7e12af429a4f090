import { route } from '~~/server/routing/route'
import { versionsOf } from '~~/server/templates/templates'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('template') }, ({ asker, params }) => versionsOf(asker, params.id))
