import { makeBulk } from '~~/server/bulk/make'
import { route } from '~~/server/routing/route'
import { makeBulkForm } from '~~/shared/schemas/bulk-text'

export default route({ body: makeBulkForm }, ({ asker, body, now }) => makeBulk(asker, body, now))
