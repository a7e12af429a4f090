import { readGroupFeed } from '~~/server/bulk/group-feed'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { groupFeedQuery } from '~~/shared/schemas/group'

export default route({ params: byId('group'), query: groupFeedQuery }, ({ asker, params, query, now }) =>
  readGroupFeed(asker, params.id, query, now))
