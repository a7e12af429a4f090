import { route } from '~~/server/routing/route'
import { listFields } from '~~/server/records/fields'
import { ofModule } from '~~/shared/schemas/list'

export default route({ query: ofModule }, ({ query }) => listFields(query.module))
