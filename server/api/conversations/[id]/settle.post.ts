import { route } from '~~/server/routing/route'
import { settleConversation } from '~~/server/texting/conversations'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, async ({ asker, params }) => {
  await settleConversation(asker, params.id)
  return { id: params.id }
})
