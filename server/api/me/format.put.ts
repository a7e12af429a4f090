import { setHabits } from '~~/server/identity/habits'
import { route } from '~~/server/routing/route'
import { formatForm } from '~~/shared/schemas/sign-in'

export default route({ body: formatForm }, async ({ asker, body }) => {
  await setHabits(asker.id, { format: body })
})
