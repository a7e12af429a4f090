import { readResults } from '~~/server/bulk/results'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text') }, ({ asker, params }) => readResults(asker, params.id))
