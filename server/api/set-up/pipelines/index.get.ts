import { route } from '~~/server/http/route'
import { listPipelines } from '~~/server/records/pipeline-edit'
import { ofPipelineModule } from '~~/shared/schemas/pipeline'

export default route({ query: ofPipelineModule }, ({ query }) => listPipelines(query.module))
