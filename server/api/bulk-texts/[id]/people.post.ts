import { addToBulk } from '~~/server/bulk/make'
import { route } from '~~/server/routing/route'
import { addToBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: addToBulkForm }, ({ asker, params, body, now }) =>
  addToBulk(asker, params.id, body, now),
)
