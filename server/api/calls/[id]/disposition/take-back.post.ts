import { takeDispositionBack } from '~~/server/calling/take-back'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params, now }) => takeDispositionBack(asker, params.id, now))
