import { route } from '~~/server/routing/route'
import { saveHouseRules } from '~~/server/identity/house-rules'
import { houseRulesForm } from '~~/shared/schemas/house-rules'

export default route({ body: houseRulesForm }, ({ asker, body, now }) => saveHouseRules(asker, body, now))
