import { useOf } from '~~/server/money/use'
import { route } from '~~/server/routing/route'
import { useQuery } from '~~/shared/schemas/money'

export default route({ query: useQuery }, ({ asker, query }) => useOf(asker, query))
