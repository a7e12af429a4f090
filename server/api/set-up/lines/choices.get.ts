import { object } from 'yup'
import { route } from '~~/server/routing/route'
import { lineChoices } from '~~/server/texting/line-make'
import { line } from '~~/shared/schemas/common'

export default route({ query: object({ carrier: line(60).required() }) }, ({ asker, query }) => lineChoices(asker, query.carrier))
