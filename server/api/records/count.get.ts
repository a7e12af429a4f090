import { route } from '~~/server/routing/route'
import { countRecords } from '~~/server/records/list'
import { listQuery } from '~~/shared/schemas/record'

export default route({ query: listQuery }, ({ asker, query, now }) => countRecords(asker, query, now))
