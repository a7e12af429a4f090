import { route } from '~~/server/routing/route'
import { listViews } from '~~/server/records/views'
import { ofModule } from '~~/shared/schemas/list'

export default route({ query: ofModule }, ({ asker, query }) => listViews(asker, query.module))
