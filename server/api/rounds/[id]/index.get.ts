import { readRound } from '~~/server/calling/rounds/read'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('round') }, ({ asker, params, now }) => readRound(asker, params.id, now))
