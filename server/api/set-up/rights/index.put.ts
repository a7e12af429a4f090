import { changeRight } from '~~/server/identity/rights'
import { route } from '~~/server/routing/route'
import { rightForm } from '~~/shared/schemas/rights'

export default route({ body: rightForm }, ({ asker, body, now }) => changeRight(asker, body, now))
