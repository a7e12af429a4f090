import { route } from '~~/server/routing/route'
import { recentBulks } from '~~/server/records/bulk'

export default route({}, ({ asker, now }) => recentBulks(asker, now))
