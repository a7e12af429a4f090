import { route } from '~~/server/http/route'
import { readShelf } from '~~/server/texting/shelf'

export default route({}, ({ asker }) => readShelf(asker))
