import { renameTeam } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { teamForm } from '~~/shared/schemas/people'

export default route({ params: byId('team'), body: teamForm }, ({ asker, params, body, now }) => renameTeam(asker, params.id, body.name, now))
