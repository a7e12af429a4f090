import { string } from 'yup'
import { route } from '~~/server/routing/route'
import { boardOfDeals } from '~~/server/records/board'
import { boardQuery } from '~~/shared/schemas/board'
import { byId } from '~~/shared/schemas/common'

export default route(
  { params: byId('pipeline'), query: boardQuery.shape({ whose: string().oneOf(['all', 'mine'] as const).default('all') }) },
  ({ asker, params, query }) => boardOfDeals(asker, params.id, query.whose, query.most),
)
