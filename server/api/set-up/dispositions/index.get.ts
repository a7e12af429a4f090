import { listDispositions } from '~~/server/calling/disposition-edit'
import { route } from '~~/server/routing/route'
import { ofPersonModule } from '~~/shared/schemas/disposition'

export default route({ query: ofPersonModule }, ({ asker, query }) => listDispositions(asker, query.module))
