import { route } from '~~/server/routing/route'
import { settleRequest } from '~~/server/tasks/request'
import { requestForm } from '~~/shared/schemas/calling'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record'), body: requestForm }, ({ asker, params, body, now }) => settleRequest(asker, params.id, body, now))
