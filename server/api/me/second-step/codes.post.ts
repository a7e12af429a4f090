import { route } from '~~/server/routing/route'
import { recoveryCodesAnew } from '~~/server/identity/second-step'
import { passwordForm } from '~~/shared/schemas/sign-in'

export default route({ body: passwordForm }, ({ asker, body, now }) => recoveryCodesAnew(asker, body.password, now))
