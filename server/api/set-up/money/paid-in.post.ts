import { payIn, readMoney } from '~~/server/money/accounts'
import { route } from '~~/server/routing/route'
import { payInForm } from '~~/shared/schemas/money'

export default route({ body: payInForm }, async ({ asker, body, now }) => {
  await payIn(asker, body, now)
  return readMoney(asker, now)
})
