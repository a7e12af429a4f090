import { removeAccount } from '~~/server/carriers/accounts'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('carrier') }, ({ asker, params, now }) => removeAccount(asker, params.id, now))
