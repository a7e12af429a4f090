import { takeOut } from '~~/server/bulk/take-out'
import { route } from '~~/server/routing/route'
import { takeOutForm } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), body: takeOutForm }, ({ asker, params, body, now }) => takeOut(asker, params.id, body, now))
