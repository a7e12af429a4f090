import { readAsked } from '~~/server/bulk/asked'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text') }, ({ asker, params }) => readAsked(asker, params.id))
