import { putInGroup } from '~~/server/records/groups/members'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { groupPersonForm } from '~~/shared/schemas/group'

export default route({ params: byId('group'), body: groupPersonForm }, async ({ asker, params, body, now }) => {
  await putInGroup(asker, body.recordId, params.id, body.in, now)
})
