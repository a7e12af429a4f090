import { route } from '~~/server/routing/route'
import { startBulk } from '~~/server/records/bulk'
import { bulkForm } from '~~/shared/schemas/list'

export default route({ body: bulkForm }, ({ asker, body, now }) => startBulk(asker, body, now))
