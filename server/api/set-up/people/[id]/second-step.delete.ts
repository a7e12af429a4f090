import { route } from '~~/server/routing/route'
import { takeSecondStepAway } from '~~/server/identity/people'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('colleague') }, ({ asker, params, now }) => takeSecondStepAway(asker, params.id, now))
