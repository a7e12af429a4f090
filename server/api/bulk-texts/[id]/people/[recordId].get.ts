import { readOne } from '~~/server/bulk/own'
import { route } from '~~/server/routing/route'
import { personOfBulk } from '~~/shared/schemas/bulk-text'

export default route({ params: personOfBulk }, ({ asker, params, now }) => readOne(asker, params.id, params.recordId, now))
