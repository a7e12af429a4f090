import { route } from '~~/server/routing/route'
import { whoMayHave } from '~~/server/texting/assign'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('conversation') }, ({ asker, params }) => whoMayHave(asker, params.id))
