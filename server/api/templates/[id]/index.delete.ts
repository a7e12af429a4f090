import { route } from '~~/server/routing/route'
import { retireTemplate } from '~~/server/templates/retire'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('template') }, ({ asker, params, now }) => retireTemplate(asker, params.id, now))
