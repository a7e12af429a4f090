import { removeBulk } from '~~/server/bulk/remove'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text') }, ({ asker, params, now }) => removeBulk(asker, params.id, now))
