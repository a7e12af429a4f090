import { myShelf } from '~~/server/calling/mine'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => myShelf(asker, now))
