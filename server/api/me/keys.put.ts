import { setHabits } from '~~/server/identity/habits'
import { route } from '~~/server/routing/route'
import { keysForm } from '~~/shared/schemas/sign-in'

export default route({ body: keysForm }, async ({ asker, body }) => {
  await setHabits(asker.id, { singleKeys: body.singleKeys })
})
