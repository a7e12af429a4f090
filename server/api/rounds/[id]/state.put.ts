import { turnRound } from '~~/server/calling/rounds/turn'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { roundStateForm } from '~~/shared/schemas/round'

export default route({ params: byId('round'), body: roundStateForm }, ({ asker, params, body, now }) =>
  turnRound(asker, params.id, body.state, now),
)
