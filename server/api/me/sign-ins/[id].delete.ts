import { route } from '~~/server/routing/route'
import { endMine } from '~~/server/identity/sign-in'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('sign-in') }, ({ asker, params, now }) => endMine(asker, params.id, now))
