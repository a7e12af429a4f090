import { listBulks } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => listBulks(asker))
