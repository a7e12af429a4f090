import { keepNotes } from '~~/server/calling/notes'
import { route } from '~~/server/routing/route'
import { callNotesForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: callNotesForm }, ({ asker, params, body }) => keepNotes(asker, params.id, body.notes))
