import { readLedger } from '~~/server/money/use'
import { route } from '~~/server/routing/route'
import { ledgerQuery } from '~~/shared/schemas/money'

export default route({ query: ledgerQuery }, ({ asker, query }) => readLedger(asker, query))
