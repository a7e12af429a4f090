import { route } from '~~/server/routing/route'
import { readMessages } from '~~/server/timeline/read'
import { sifted } from '~~/server/timeline/sieve'
import { byId } from '~~/shared/schemas/common'
import { messagesQuery } from '~~/shared/schemas/timeline'

export default route({ params: byId('record'), query: messagesQuery }, ({ asker, params, query }) =>
  readMessages(asker, params.id, query, sifted(query, asker.zone)))
