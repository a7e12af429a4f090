import { route } from '~~/server/routing/route'
import { assign } from '~~/server/texting/assign'
import { byId } from '~~/shared/schemas/common'
import { assignForm } from '~~/shared/schemas/inbox'

export default route({ params: byId('conversation'), body: assignForm }, async ({ asker, params, body, now }) => {
  await assign(asker, params.id, body, now)
  return { id: params.id }
})
