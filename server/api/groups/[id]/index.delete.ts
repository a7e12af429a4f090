import { removeGroup } from '~~/server/records/groups/edit'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('group') }, ({ asker, params, now }) => removeGroup(asker, params.id, now))
