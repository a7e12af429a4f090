import { startBulk } from '~~/server/bulk/run'
import { route } from '~~/server/routing/route'
import { startBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: startBulkForm }, ({ asker, params, body, now }) => startBulk(asker, params.id, body, now))
