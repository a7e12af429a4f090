import { route } from '~~/server/http/route'
import { recentBulks } from '~~/server/records/bulk'

export default route({}, ({ asker, now }) => recentBulks(asker, now))
