import { object } from 'yup'
import { route } from '~~/server/routing/route'
import { findSaid } from '~~/server/timeline/find'
import { line } from '~~/shared/schemas/common'

export default route({ query: object({ words: line(100).default('') }) }, ({ asker, query }) => findSaid(asker, query.words))
