import { route } from '~~/server/routing/route'
import { removePipeline } from '~~/server/records/pipeline-edit'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('pipeline') }, ({ asker, params, now }) => removePipeline(asker, params.id, now))
