import { previewPlan } from '~~/server/bulk/plan'
import { route } from '~~/server/routing/route'
import { startBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), query: startBulkForm }, ({ asker, params, query, now }) => previewPlan(asker, params.id, query, now))
