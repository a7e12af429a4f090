import { readNotices } from '~~/server/pages/notices'
import { route } from '~~/server/routing/route'
import { noticesQuery } from '~~/shared/schemas/inbox'

export default route({ query: noticesQuery }, ({ asker, query, now }) => readNotices(asker, query, now))
