import { route } from '~~/server/routing/route'
import { changeLine } from '~~/server/texting/line-edit'
import { byId } from '~~/shared/schemas/common'
import { lineForm } from '~~/shared/schemas/line'

export default route({ params: byId('line'), body: lineForm }, ({ asker, params, body, now }) => changeLine(asker, params.id, body, now))
