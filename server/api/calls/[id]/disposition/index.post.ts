import { dispose } from '~~/server/calling/dispose'
import { route } from '~~/server/routing/route'
import { disposeForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: disposeForm }, ({ asker, params, body, now }) => dispose(asker, params.id, body, now))
