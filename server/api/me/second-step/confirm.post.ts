import { route } from '~~/server/routing/route'
import { confirmSecondStep } from '~~/server/identity/second-step'
import { codeForm } from '~~/shared/schemas/sign-in'

export default route({ body: codeForm }, ({ asker, body, now }) => confirmSecondStep(asker, body.code, now))
