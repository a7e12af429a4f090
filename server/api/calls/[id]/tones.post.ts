import { sendTones } from '~~/server/calling/orders'
import { route } from '~~/server/routing/route'
import { tonesForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: tonesForm }, ({ asker, params, body }) => sendTones(asker, params.id, body.tones))
