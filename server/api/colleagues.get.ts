import { route } from '~~/server/http/route'
import { colleagues } from '~~/server/identity/colleagues'

export default route({}, () => colleagues())
