import { switchTexting } from '~~/server/identity/terms'
import { route } from '~~/server/routing/route'
import { switchForm } from '~~/shared/schemas/terms'

export default route({ body: switchForm }, ({ asker, body, now }) => switchTexting(asker, body, now))
