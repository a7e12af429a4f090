import { route } from '~~/server/routing/route'
import { startComposer } from '~~/server/texting/composer'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record') }, ({ asker, params, now }) => startComposer(asker, params.id, now))
