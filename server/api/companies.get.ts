import { object } from 'yup'
import { route } from '~~/server/http/route'
import { companiesNamed } from '~~/server/records/one'
import { line } from '~~/shared/schemas/common'

export default route({ query: object({ words: line(100).default('') }) }, ({ asker, query }) => companiesNamed(asker, query.words))
