import { route } from '~~/server/http/route'
import { listTemplates } from '~~/server/templates/templates'

export default route({}, ({ asker }) => listTemplates(asker))
