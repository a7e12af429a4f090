import { openRoute } from '~~/server/http/route'
import { readBeginning } from '~~/server/identity/begin'

export default openRoute({}, () => readBeginning())
