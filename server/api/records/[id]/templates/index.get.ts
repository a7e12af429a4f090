import { route } from '~~/server/routing/route'
import { fillForRecord } from '~~/server/templates/fill'
import { byId } from '~~/shared/schemas/common'
import { fillContext } from '~~/shared/schemas/template'

export default route({ params: byId('record'), query: fillContext }, ({ asker, params, query }) => fillForRecord(asker, params.id, query))
