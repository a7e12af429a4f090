import { changeRightOf } from '~~/server/identity/rights'
import { route } from '~~/server/routing/route'
import { personRightForm } from '~~/shared/schemas/rights'

export default route({ body: personRightForm }, ({ asker, body, now }) => changeRightOf(asker, body, now))
