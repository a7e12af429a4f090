import { readInbox } from '~~/server/pages/inbox'
import { route } from '~~/server/routing/route'
import { inboxQuery } from '~~/shared/schemas/inbox'

export default route({ query: inboxQuery }, ({ asker, query }) => readInbox(asker, query))
