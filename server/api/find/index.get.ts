import { object } from 'yup'
import { route } from '~~/server/routing/route'
import { findRecords } from '~~/server/records/find'
import { line } from '~~/shared/schemas/common'

export default route({ query: object({ words: line(100).default('') }) }, ({ asker, query }) => findRecords(asker, query.words))
