import { route } from '~~/server/http/route'
import { readConversation } from '~~/server/texting/shelf'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, ({ asker, params, now }) => readConversation(asker, params.id, now))
