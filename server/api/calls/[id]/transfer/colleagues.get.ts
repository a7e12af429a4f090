import { toWhom } from '~~/server/calling/transfers/to-whom'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params }) => toWhom(asker, params.id))
