import { changeAccount, readMoney } from '~~/server/money/accounts'
import { route } from '~~/server/routing/route'
import { accountForm } from '~~/shared/schemas/money'

export default route({ body: accountForm }, async ({ asker, body, now }) => {
  await changeAccount(asker, body, now)
  return readMoney(asker, now)
})
