import { stopImport } from '~~/server/imports/begin'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('import') }, ({ asker, params, now }) => stopImport(asker, params.id, now))
