import { route } from '~~/server/routing/route'
import { retiredTemplates } from '~~/server/templates/retire'

export default route({}, ({ asker }) => retiredTemplates(asker))
