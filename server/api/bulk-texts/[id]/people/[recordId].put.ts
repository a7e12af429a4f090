import { writeOwn } from '~~/server/bulk/own'
import { route } from '~~/server/routing/route'
import { ownTextForm, personOfBulk } from '~~/shared/schemas/bulk-text'

export default route({ params: personOfBulk, body: ownTextForm }, ({ asker, params, body, now }) =>
  writeOwn(asker, params.id, params.recordId, body, now))
