import { invite } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { inviteForm } from '~~/shared/schemas/people'

export default route({ body: inviteForm }, ({ asker, body, now }) => invite(asker, body, now))
