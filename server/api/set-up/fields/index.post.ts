import { route } from '~~/server/routing/route'
import { addField } from '~~/server/records/fields'
import { fieldForm } from '~~/shared/schemas/field'

export default route({ body: fieldForm }, ({ asker, body, now }) => addField(asker, body, now))
