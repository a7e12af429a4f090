import { route } from '~~/server/routing/route'
import { fillOneForRecord } from '~~/server/templates/fill'
import { byId, idOf } from '~~/shared/schemas/common'
import { fillOne } from '~~/shared/schemas/template'

export default route(
  { params: byId('record').shape({ templateId: idOf('template').required() }), body: fillOne },
  ({ asker, params, body }) => fillOneForRecord(asker, params.id, params.templateId, body),
)
