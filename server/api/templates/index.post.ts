import { route } from '~~/server/routing/route'
import { addTemplate } from '~~/server/templates/templates'
import { makeTemplate } from '~~/shared/schemas/template'

export default route({ body: makeTemplate }, async ({ asker, body, now }) => ({ id: await addTemplate(asker, body, now) }))
