import { route } from '~~/server/routing/route'
import { addNote } from '~~/server/timeline/note'
import { byId } from '~~/shared/schemas/common'
import { noteForm } from '~~/shared/schemas/record'

export default route({ params: byId('record'), body: noteForm }, async ({ asker, params, body, now }) => {
  await addNote(asker, params.id, body, now)
  return { id: body.id }
})
