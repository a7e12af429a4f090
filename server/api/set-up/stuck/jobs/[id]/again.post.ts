import { route } from '~~/server/routing/route'
import { startAgain } from '~~/server/tellers/stuck'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('job') }, ({ asker, params, now }) => startAgain(asker, params.id, now))
