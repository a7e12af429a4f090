import { route } from '~~/server/routing/route'
import { changeField } from '~~/server/records/fields'
import { byId } from '~~/shared/schemas/common'
import { fieldForm } from '~~/shared/schemas/field'

export default route({ params: byId('field'), body: fieldForm }, ({ asker, params, body, now }) => changeField(asker, params.id, body, now))
