import { route } from '~~/server/routing/route'
import { listRecords } from '~~/server/records/list'
import { recordQuery } from '~~/shared/schemas/record'

export default route({ query: recordQuery }, ({ asker, query, now }) => listRecords(asker, query, now))
