import { route } from '~~/server/routing/route'
import { takeBackBulk } from '~~/server/records/bulk'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-change') }, ({ asker, params, now }) => takeBackBulk(asker, params.id, now))
