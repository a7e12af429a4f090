import { recentImports } from '~~/server/imports/progress'
import { route } from '~~/server/routing/route'
import { ofModule } from '~~/shared/schemas/list'

export default route({ query: ofModule }, ({ asker, query, now }) => recentImports(asker, query.module, now))
