import { route } from '~~/server/routing/route'
import { takeOff } from '~~/server/records/people'
import { personOn } from '~~/shared/schemas/record'

export default route({ params: personOn }, ({ asker, params, now }) => takeOff(asker, params.id, params.personId, now))
