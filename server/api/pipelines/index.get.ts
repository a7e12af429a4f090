import { route } from '~~/server/routing/route'
import { pipelinesOf } from '~~/server/records/pipelines'
import { ofHeld } from '~~/shared/schemas/pipeline'

export default route({ query: ofHeld }, ({ query }) => pipelinesOf(query.holds))
