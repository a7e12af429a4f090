import { readRoundPeople } from '~~/server/calling/rounds/read'
import { route } from '~~/server/routing/route'
import { byId } from '~~/shared/schemas/common'
import { roundPeopleQuery } from '~~/shared/schemas/round'

export default route({ params: byId('round'), query: roundPeopleQuery }, ({ asker, params, query, now }) =>
  readRoundPeople(asker, params.id, query, now),
)
