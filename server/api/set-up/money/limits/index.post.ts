import { readMoney } from '~~/server/money/accounts'
import { setLimit } from '~~/server/money/limits'
import { route } from '~~/server/routing/route'
import { limitForm } from '~~/shared/schemas/money'

export default route({ body: limitForm }, async ({ asker, body, now }) => {
  await setLimit(asker, body, now)
  return readMoney(asker, now)
})
