import { route } from '~~/server/routing/route'
import { moveOnJob } from '~~/server/records/move'
import { moveForm, personOn } from '~~/shared/schemas/record'

export default route({ params: personOn, body: moveForm }, ({ asker, params, body, now }) =>
  moveOnJob(asker, params.id, params.personId, body, now),
)
