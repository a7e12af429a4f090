import { putAway } from '~~/server/calling/notes'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params, now }) => putAway(asker, params.id, now))
