import { route } from '~~/server/http/route'
import { startAgain } from '~~/server/jobs/stuck'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('job') }, ({ asker, params, now }) => startAgain(asker, params.id, now))
