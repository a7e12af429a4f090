import { saveGroup } from '~~/server/records/groups/edit'
import { route } from '~~/server/routing/route'
import { groupForm } from '~~/shared/schemas/group'

export default route({ body: groupForm }, ({ asker, body, now }) => saveGroup(asker, body, now))
