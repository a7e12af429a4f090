import { changeRound } from '~~/server/calling/rounds/turn'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { roundMannerForm } from '~~/shared/schemas/round'

export default route({ params: byId('round'), body: roundMannerForm }, ({ asker, params, body, now }) =>
  changeRound(asker, params.id, body, now),
)
