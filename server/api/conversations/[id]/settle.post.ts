import { route } from '~~/server/http/route'
import { settleConversation } from '~~/server/texting/shelf'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, async ({ asker, params, now }) => {
  await settleConversation(asker, params.id, now)
  return { id: params.id }
})
