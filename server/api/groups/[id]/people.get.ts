import { listGroupPeople } from '~~/server/records/groups/people'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { groupPeopleQuery } from '~~/shared/schemas/group'

export default route({ params: byId('group'), query: groupPeopleQuery }, ({ asker, params, query, now }) =>
  listGroupPeople(asker, params.id, query, now))
