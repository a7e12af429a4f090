import { route } from '~~/server/routing/route'
import { takeUpField } from '~~/server/records/fields'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('field') }, ({ asker, params, now }) => takeUpField(asker, params.id, now))
