import { route } from '~~/server/http/route'
import { pipelinesOf } from '~~/server/records/pipelines'
import { ofPipelineModule } from '~~/shared/schemas/pipeline'

export default route({ query: ofPipelineModule }, ({ query }) => pipelinesOf(query.module))
