import { withdraw } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('invitation') }, ({ asker, params, now }) => withdraw(asker, params.id, now))
