import { takeOnAgain } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('colleague') }, ({ asker, params, now }) => takeOnAgain(asker, params.id, now))
