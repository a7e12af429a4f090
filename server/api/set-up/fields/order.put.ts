import { route } from '~~/server/routing/route'
import { orderFields } from '~~/server/records/fields'
import { fieldOrder } from '~~/shared/schemas/field'

export default route({ body: fieldOrder }, ({ asker, body, now }) => orderFields(asker, body.module, body.ids, now))
