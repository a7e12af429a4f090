import { openRoute } from '~~/server/routing/route'
import { readBeginning } from '~~/server/beginning/begin'

export default openRoute({}, () => readBeginning())
