import { readBulk } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text') }, ({ asker, params }) => readBulk(asker, params.id))
