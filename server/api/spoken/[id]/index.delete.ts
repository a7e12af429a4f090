import { retireSpoken } from '~~/server/calling/spoken'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('spoken') }, ({ asker, params, now }) => retireSpoken(asker, params.id, now))
