import { rateCall } from '~~/server/calling/notes'
import { route } from '~~/server/routing/route'
import { ratingForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('call'), body: ratingForm }, ({ asker, params, body }) => rateCall(asker, params.id, body.rating))
