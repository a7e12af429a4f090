import { readFront } from '~~/server/papers/front'
import { writePapers } from '~~/server/papers/written'
import { route } from '~~/server/routing/route'
import { papersForm } from '~~/shared/schemas/papers'

export default route({ body: papersForm }, async ({ asker, body, now }) => {
  await writePapers(asker, body, now)
  return readFront(asker)
})
