import { route } from '~~/server/routing/route'
import { putOn } from '~~/server/records/people'
import { personOn } from '~~/shared/schemas/record'

export default route({ params: personOn }, ({ asker, params, now }) => putOn(asker, params.id, params.personId, now))
