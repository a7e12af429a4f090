import { route } from '~~/server/http/route'
import { listPipelines } from '~~/server/records/pipeline-edit'
import { ofPipelineModule } from '~~/shared/schemas/pipeline'

export default route({ query: ofPipelineModule }, ({ asker, query }) => listPipelines(asker, query.module))
