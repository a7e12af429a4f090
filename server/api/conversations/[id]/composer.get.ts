import { route } from '~~/server/routing/route'
import { startConversation } from '~~/server/texting/composer'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, ({ asker, params, now }) => startConversation(asker, params.id, now))
