import { route } from '~~/server/routing/route'
import { reschedule } from '~~/server/texting/schedule'
import { byId } from '~~/shared/schemas/common'
import { rescheduleForm } from '~~/shared/schemas/texting'

export default route({ params: byId('message'), body: rescheduleForm }, ({ asker, params, body, now }) =>
  reschedule(asker, params.id, body, now),
)
