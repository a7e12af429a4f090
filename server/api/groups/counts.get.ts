import { countGroups } from '~~/server/records/groups/people'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker, now }) => countGroups(asker, now))
