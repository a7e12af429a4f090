import { sayOf } from '~~/server/calling/rounds/standing'
import { route } from '~~/server/routing/route'
import { byId, idOf } from '~~/shared/schemas/common'
import { roundPersonForm } from '~~/shared/schemas/round'

export default route(
  { params: byId('round').shape({ recordId: idOf('record').required() }), body: roundPersonForm },
  ({ asker, params, body, now }) => sayOf(asker, params.id, params.recordId, body.say, now),
)
