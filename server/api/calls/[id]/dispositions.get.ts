import { previewDispositions } from '~~/server/calling/preview'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params, now }) => previewDispositions(asker, params.id, now))
