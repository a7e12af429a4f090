import { route } from '~~/server/routing/route'
import { offersOf } from '~~/server/texting/line-rent'
import { offersQuery } from '~~/shared/schemas/line'

export default route({ query: offersQuery }, ({ asker, query }) => offersOf(asker, query))
