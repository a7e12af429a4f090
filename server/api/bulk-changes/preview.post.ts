import { route } from '~~/server/routing/route'
import { previewBulk } from '~~/server/records/bulk'
import { bulkPreviewForm } from '~~/shared/schemas/list'

export default route({ body: bulkPreviewForm }, ({ asker, body, now }) => previewBulk(asker, body, now))
