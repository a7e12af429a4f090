import { route } from '~~/server/routing/route'
import { takeBack } from '~~/server/texting/take-back'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('message') }, ({ asker, params, now }) => takeBack(asker, params.id, now))
