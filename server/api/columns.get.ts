import { route } from '~~/server/routing/route'
import { listColumns } from '~~/server/records/views'
import { ofModule } from '~~/shared/schemas/list'

export default route({ query: ofModule }, ({ asker, query }) => listColumns(asker, query.module))
