import { makeTeam } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { makeTeamForm } from '~~/shared/schemas/people'

export default route({ body: makeTeamForm }, ({ asker, body, now }) => makeTeam(asker, body, now))
