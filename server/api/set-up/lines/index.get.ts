import { route } from '~~/server/http/route'
import { listLines } from '~~/server/texting/line-edit'

export default route({}, ({ asker }) => listLines(asker))
