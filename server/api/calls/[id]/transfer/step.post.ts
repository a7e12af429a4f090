import { stepOfTransfer } from '~~/server/calling/transfers/transfer'
import { route } from '~~/server/routing/route'
import { handStepForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: handStepForm }, ({ asker, params, body, now }) =>
  stepOfTransfer(asker, params.id, body.step, now),
)
