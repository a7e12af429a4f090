import { tryAccount } from '~~/server/carriers/accounts'
import { route } from '~~/server/routing/route'
import { tryCarrierForm } from '~~/shared/schemas/carrier'

export default route({ body: tryCarrierForm }, ({ asker, body, now }) => tryAccount(asker, body, now))
