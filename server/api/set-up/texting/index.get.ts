import { readTexting } from '~~/server/identity/terms'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readTexting(asker))
