import { object, string } from 'yup'
import { orderCall } from '~~/server/calling/orders'
import { ORDERS } from '~~/server/calling/port'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: object({ order: string().oneOf(ORDERS).required() }) }, ({ asker, params, body, now }) =>
  orderCall(asker, params.id, body.order, now),
)
