import { makeRound } from '~~/server/calling/rounds/make'
import { route } from '~~/server/routing/route'
import { roundForm } from '~~/shared/schemas/round'

export default route({ body: roundForm }, ({ asker, body, now }) => makeRound(asker, body, now))
