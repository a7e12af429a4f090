import { route } from '~~/server/routing/route'
import { resultsOf } from '~~/server/templates/results'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('template') }, ({ asker, params, now }) => resultsOf(asker, params.id, now))
