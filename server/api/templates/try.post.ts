import { route } from '~~/server/routing/route'
import { tryTemplate } from '~~/server/templates/fill'
import { tryTemplate as body } from '~~/shared/schemas/template'

export default route({ body }, ({ asker, body }) => tryTemplate(asker, body))
