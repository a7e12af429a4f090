import { route } from '~~/server/routing/route'
import { stepLine } from '~~/server/texting/line-life'
import { byId } from '~~/shared/schemas/common'
import { stepForm } from '~~/shared/schemas/line'

export default route({ params: byId('line'), body: stepForm }, ({ asker, params, body, now }) => stepLine(asker, params.id, body.step, now))
