import { route } from '~~/server/routing/route'
import { offerSecondStep } from '~~/server/identity/second-step'

export default route({}, ({ asker }) => offerSecondStep(asker))
