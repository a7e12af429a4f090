import { progressOf } from '~~/server/imports/progress'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('import') }, ({ asker, params }) => progressOf(asker, params.id))
