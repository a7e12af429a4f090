import { bringAgain } from '~~/server/texting/porting'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { portingForm } from '~~/shared/schemas/line'

export default route({ params: byId('line'), body: portingForm }, ({ asker, params, body, now }) => bringAgain(asker, params.id, body, now))
