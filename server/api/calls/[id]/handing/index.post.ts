import { handCall } from '~~/server/calling/handings/hand'
import { route } from '~~/server/http/route'
import { handForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: handForm }, ({ asker, params, body, now }) => handCall(asker, params.id, body, now))
