import { repeatBulk } from '~~/server/bulk/repeat'
import { route } from '~~/server/routing/route'
import { repeatBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: repeatBulkForm }, ({ asker, params, body, now }) =>
  repeatBulk(asker, params.id, body.id, now))
