import { route } from '~~/server/routing/route'
import { settleConversation } from '~~/server/texting/owed'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, async ({ asker, params, now }) => {
  await settleConversation(asker, params.id, now)
  return { id: params.id }
})
