import { readFront } from '~~/server/papers/front'
import { noteWord } from '~~/server/papers/hand-in'
import { route } from '~~/server/routing/route'
import { papersWordForm, registrationParams } from '~~/shared/schemas/papers'

export default route({ params: registrationParams, body: papersWordForm }, async ({ asker, params, body, now }) => {
  await noteWord(asker, params.id, body, now)
  return readFront(asker)
})
