import { route } from '~~/server/routing/route'
import { linesOf } from '~~/server/texting/lines'

export default route({}, ({ asker }) => linesOf(asker))
