import { transferCall } from '~~/server/calling/transfers/transfer'
import { route } from '~~/server/routing/route'
import { transferForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: transferForm }, ({ asker, params, body, now }) =>
  transferCall(asker, params.id, body, now),
)
