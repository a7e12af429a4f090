import { route } from '~~/server/routing/route'
import { readConversation } from '~~/server/pages/shelf'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, ({ asker, params, now }) => readConversation(asker, params.id, now))
