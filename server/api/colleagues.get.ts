import { route } from '~~/server/routing/route'
import { colleagues } from '~~/server/identity/colleagues'

export default route({}, () => colleagues())
