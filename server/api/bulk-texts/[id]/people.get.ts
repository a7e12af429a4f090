import { readBulkPeople } from '~~/server/bulk/read'
import { route } from '~~/server/routing/route'
import { bulkPeopleQuery } from '~~/shared/schemas/bulk-text'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('bulk-text'), query: bulkPeopleQuery }, ({ asker, params, query }) => readBulkPeople(asker, params.id, query))
