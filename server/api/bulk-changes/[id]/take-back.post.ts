import { route } from '~~/server/http/route'
import { takeBackBulk } from '~~/server/records/bulk'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId }, ({ asker, params, now }) => takeBackBulk(asker, params.id, now))
