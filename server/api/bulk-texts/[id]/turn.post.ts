import { readBulk } from '~~/server/bulk/read'
import { turnBulk } from '~~/server/bulk/run'
import { route } from '~~/server/routing/route'
import { turnBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: turnBulkForm }, async ({ asker, params, body, now }) => {
  await turnBulk(asker, params.id, body.step, now)
  return readBulk(asker, params.id)
})
