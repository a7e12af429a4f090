import { makeAccount } from '~~/server/carriers/accounts'
import { route } from '~~/server/routing/route'
import { makeCarrierForm } from '~~/shared/schemas/carrier'

export default route({ body: makeCarrierForm }, ({ asker, body, now }) => makeAccount(asker, body, now))
