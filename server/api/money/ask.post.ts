import { askForMoney } from '~~/server/money/asks'
import { route } from '~~/server/routing/route'
import { askForm } from '~~/shared/schemas/money'

export default route({ body: askForm }, async ({ asker, body, now }) => {
  await askForMoney(asker, body, now)
  return {}
})
