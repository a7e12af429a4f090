import { readFront } from '~~/server/papers/front'
import { handIn } from '~~/server/papers/hand-in'
import { route } from '~~/server/routing/route'
import { handInForm } from '~~/shared/schemas/papers'

export default route({ body: handInForm }, async ({ asker, body, now }) => {
  await handIn(asker, body, now)
  return readFront(asker)
})
