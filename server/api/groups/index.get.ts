import { listGroups } from '~~/server/records/groups/edit'
import { route } from '~~/server/routing/route'

export default route({}, ({ asker }) => listGroups(asker))
