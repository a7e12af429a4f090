import { writeBulk } from '~~/server/bulk/make'
import { readBulk } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'
import { writeBulkForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: writeBulkForm }, async ({ asker, params, body, now }) => {
  await writeBulk(asker, params.id, body, now)
  return readBulk(asker, params.id)
})
