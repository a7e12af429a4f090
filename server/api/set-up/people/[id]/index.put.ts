import { changeColleague } from '~~/server/identity/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { colleagueForm } from '~~/shared/schemas/people'

export default route({ params: byId('colleague'), body: colleagueForm }, ({ asker, params, body, now }) => changeColleague(asker, params.id, body, now))
