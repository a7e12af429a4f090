import { route } from '~~/server/routing/route'
import { makeLine } from '~~/server/texting/line-make'
import { makeLineForm } from '~~/shared/schemas/line'

export default route({ body: makeLineForm }, ({ asker, body, now }) => makeLine(asker, body, now))
