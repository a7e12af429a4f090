import { route } from '~~/server/routing/route'
import { readShelf } from '~~/server/pages/shelf'

export default route({}, ({ asker }) => readShelf(asker))
