import { readMoney } from '~~/server/money/accounts'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => readMoney(asker, now))
