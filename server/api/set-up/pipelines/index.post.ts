import { route } from '~~/server/routing/route'
import { addPipeline } from '~~/server/records/pipeline-edit'
import { pipelineForm } from '~~/shared/schemas/pipeline'

export default route({ body: pipelineForm }, ({ asker, body, now }) => addPipeline(asker, body, now))
