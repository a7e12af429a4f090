import { route } from '~~/server/routing/route'
import { endSecondStep } from '~~/server/identity/second-step'
import { passwordForm } from '~~/shared/schemas/sign-in'

export default route({ body: passwordForm }, ({ asker, body, now }) => endSecondStep(asker, body.password, now))
