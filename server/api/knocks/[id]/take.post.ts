import { takeKnock } from '~~/server/knocks/take'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('knock') }, ({ asker, params, now }) => takeKnock(asker, params.id, now))
