import { route } from '~~/server/routing/route'
import { retireField } from '~~/server/records/fields'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('field') }, ({ asker, params, now }) => retireField(asker, params.id, now))
