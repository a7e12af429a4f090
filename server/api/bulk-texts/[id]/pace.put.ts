import { setPace } from '~~/server/bulk/pace'
import { readBulk } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'
import { paceForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: paceForm }, async ({ asker, params, body, now }) => {
  await setPace(asker, params.id, body.answersAnHour, now)
  return readBulk(asker, params.id)
})
