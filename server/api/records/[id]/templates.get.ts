import { route } from '~~/server/http/route'
import { fillForRecord } from '~~/server/templates/fill'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId }, ({ asker, params }) => fillForRecord(asker, params.id))
