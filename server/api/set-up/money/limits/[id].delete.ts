import { readMoney } from '~~/server/money/accounts'
import { removeLimit } from '~~/server/money/limits'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('money-limit') }, async ({ asker, params, now }) => {
  await removeLimit(asker, params.id, now)
  return readMoney(asker, now)
})
