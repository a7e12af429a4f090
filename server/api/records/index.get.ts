import { route } from '~~/server/routing/route'
import { listRecords } from '~~/server/records/list'
import { recordPageQuery } from '~~/shared/schemas/record'

export default route({ query: recordPageQuery }, ({ asker, query, now }) => listRecords(asker, query, now))
