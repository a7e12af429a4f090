import { route } from '~~/server/http/route'
import { linesOf } from '~~/server/texting/lines'

export default route({}, ({ asker }) => linesOf(asker))
