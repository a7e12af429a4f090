import { route } from '~~/server/routing/route'
import { seeConversation } from '~~/server/texting/seen'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, async ({ asker, params, now }) => {
  await seeConversation(asker, params.id, now)
  return { id: params.id }
})
