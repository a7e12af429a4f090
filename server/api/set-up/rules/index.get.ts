import { route } from '~~/server/http/route'
import { readHouseRules } from '~~/server/identity/house-rules'

export default route({}, () => readHouseRules())
