import { putBulkInGroup } from '~~/server/bulk/to-group'
import { route } from '~~/server/routing/route'
import { bulkToGroupForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: bulkToGroupForm }, ({ asker, params, body, now }) =>
  putBulkInGroup(asker, params.id, body, now))
