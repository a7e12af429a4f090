import { readFront } from '~~/server/papers/front'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readFront(asker))
