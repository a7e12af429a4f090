import { setHabits } from '~~/server/identity/habits'
import { route } from '~~/server/routing/route'
import { toldForm } from '~~/shared/schemas/sign-in'

export default route({ body: toldForm }, async ({ asker, body }) => {
  await setHabits(asker.id, { told: body })
})
