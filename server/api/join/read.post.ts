import { readInvitation } from '~~/server/identity/join'
import { openRoute } from '~~/server/routing/route'
import { readInvitationForm } from '~~/shared/schemas/people'

export default openRoute({ body: readInvitationForm, bytes: 4_096 }, ({ body, now }) => readInvitation(body.key, now))
