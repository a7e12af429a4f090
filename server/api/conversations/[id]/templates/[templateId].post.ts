import { route } from '~~/server/routing/route'
import { fillOneForStranger } from '~~/server/templates/fill'
import { byId, idOf } from '~~/shared/schemas/common'
import { fillOne } from '~~/shared/schemas/template'

export default route(
  { params: byId('conversation').shape({ templateId: idOf('template').required() }), body: fillOne },
  ({ asker, params, body }) => fillOneForStranger(asker, params.id, params.templateId, body),
)
