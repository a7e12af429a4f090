import { route } from '~~/server/routing/route'
import { stopBulk } from '~~/server/records/bulk'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-change') }, ({ asker, params, now }) => stopBulk(asker, params.id, now))
