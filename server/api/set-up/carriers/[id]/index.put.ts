import { changeAccount } from '~~/server/carriers/accounts'
import { route } from '~~/server/routing/route'
import { carrierForm } from '~~/shared/schemas/carrier'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('carrier'), body: carrierForm }, ({ asker, params, body, now }) => changeAccount(asker, params.id, body, now))
