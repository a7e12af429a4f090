import { route } from '~~/server/routing/route'
import { listTemplates } from '~~/server/templates/templates'

export default route({}, ({ asker }) => listTemplates(asker))
