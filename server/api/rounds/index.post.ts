import { makeRound } from '~~/server/calling/rounds/make'
import { route } from '~~/server/http/route'
import { roundForm } from '~~/shared/schemas/round'

export default route({ body: roundForm }, ({ asker, body, now }) => makeRound(asker, body, now))
