import { readRights } from '~~/server/identity/rights'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => readRights(asker))
