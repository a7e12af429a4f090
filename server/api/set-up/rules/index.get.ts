import { route } from '~~/server/routing/route'
import { readHouseRules } from '~~/server/identity/house-rules'

export default route({}, () => readHouseRules())
