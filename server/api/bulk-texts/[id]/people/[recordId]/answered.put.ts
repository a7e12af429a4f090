import { noteAnswered } from '~~/server/bulk/note-answered'
import { route } from '~~/server/routing/route'
import { answeredForm, personOfBulk } from '~~/shared/schemas/bulk-text'

export default route({ params: personOfBulk, body: answeredForm }, ({ asker, params, body, now }) =>
  noteAnswered(asker, params.id, params.recordId, body.answered, now))
