import { setTold } from '~~/server/identity/colleagues'
import { route } from '~~/server/routing/route'
import { toldForm } from '~~/shared/schemas/sign-in'

export default route({ body: toldForm }, async ({ asker, body }) => {
  await setTold(asker.id, body)
})
