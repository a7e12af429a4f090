import { route } from '~~/server/routing/route'
import { listPipelines } from '~~/server/records/pipeline-edit'
import { ofHeld } from '~~/shared/schemas/pipeline'

export default route({ query: ofHeld }, ({ asker, query }) => listPipelines(asker, query.holds))
