import { startCheck } from '~~/server/bulk/check'
import { readBulk } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text') }, async ({ asker, params, now }) => {
  await startCheck(asker, params.id, now)
  return readBulk(asker, params.id)
})
