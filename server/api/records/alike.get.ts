import { readAlike } from '~~/server/records/alike'
import { route } from '~~/server/routing/route'
import { alikeQuery } from '~~/shared/schemas/record'

export default route({ query: alikeQuery }, ({ asker, query }) => readAlike(asker, query))
