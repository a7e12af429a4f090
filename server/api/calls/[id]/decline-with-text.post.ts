import { declineWithText } from '~~/server/calling/decline-with-text'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call') }, ({ asker, params, now }) => declineWithText(asker, params.id, now))
