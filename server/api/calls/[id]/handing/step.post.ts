import { stepOfHanding } from '~~/server/calling/handings/hand'
import { route } from '~~/server/http/route'
import { handStepForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: handStepForm }, ({ asker, params, body, now }) => stepOfHanding(asker, params.id, body.step, now))
