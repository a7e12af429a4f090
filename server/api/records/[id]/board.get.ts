import { route } from '~~/server/routing/route'
import { boardOfJob } from '~~/server/records/board'
import { boardQuery } from '~~/shared/schemas/board'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record'), query: boardQuery }, ({ asker, params, query }) => boardOfJob(asker, params.id, query.most))
