import { route } from '~~/server/routing/route'
import { changePipeline } from '~~/server/records/pipeline-edit'
import { byId } from '~~/shared/schemas/common'
import { pipelineForm } from '~~/shared/schemas/pipeline'

export default route({ params: byId('pipeline'), body: pipelineForm }, ({ asker, params, body, now }) =>
  changePipeline(asker, params.id, body, now),
)
