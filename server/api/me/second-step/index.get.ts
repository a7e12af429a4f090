import { route } from '~~/server/routing/route'
import { readSecondStep } from '~~/server/identity/second-step'

export default route({}, ({ asker }) => readSecondStep(asker))
