import { route } from '~~/server/routing/route'
import { countLength } from '~~/server/templates/length'
import { lengthForm } from '~~/shared/schemas/template'

export default route({ body: lengthForm }, ({ asker, body }) => countLength(asker, body))
