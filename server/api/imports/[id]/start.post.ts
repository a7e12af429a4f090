import { startImport } from '~~/server/imports/begin'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('import') }, ({ asker, params, now }) => startImport(asker, params.id, now))
