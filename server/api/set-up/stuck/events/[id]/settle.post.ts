import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { settleEvent } from '~~/server/tellers/stuck'
import { byId } from '~~/shared/schemas/common'

const form = object({ how: string().oneOf(['again', 'leave'] as const).required() })

export default route({ params: byId('set-aside-event'), body: form }, ({ asker, params, body, now }) =>
  settleEvent(asker, params.id, body.how, now),
)
