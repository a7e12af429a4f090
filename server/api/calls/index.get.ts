import { myShelf } from '~~/server/calling/mine'
import { route } from '~~/server/http/route'

export default route({}, ({ asker, now }) => myShelf(asker, now))
