import { readDisposed } from '~~/server/calling/dispose'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params }) => readDisposed(asker, params.id))
