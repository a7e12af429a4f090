import { route } from '~~/server/routing/route'
import { listLines } from '~~/server/texting/line-edit'

export default route({}, ({ asker }) => listLines(asker))
