import { markRecording } from '~~/server/calling/recordings'
import { route } from '~~/server/routing/route'
import { markForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('recording'), body: markForm }, ({ asker, params, body, now }) =>
  markRecording(asker, params.id, body, now),
)
