import { route } from '~~/server/routing/route'
import { restoreTemplate } from '~~/server/templates/retire'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('template') }, ({ asker, params, now }) => restoreTemplate(asker, params.id, now))
