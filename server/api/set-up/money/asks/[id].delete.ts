import { readMoney } from '~~/server/money/accounts'
import { settleAsk } from '~~/server/money/asks'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('money-ask') }, async ({ asker, params, now }) => {
  await settleAsk(asker, params.id, now)
  return readMoney(asker, now)
})
