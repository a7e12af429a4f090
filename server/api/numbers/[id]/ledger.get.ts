import { route } from '~~/server/routing/route'
import { readLedger } from '~~/server/consent/read-ledger'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('phone') }, ({ asker, params }) => readLedger(asker, params.id))
