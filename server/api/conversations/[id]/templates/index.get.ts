import { route } from '~~/server/routing/route'
import { fillForStranger } from '~~/server/templates/fill'
import { byId } from '~~/shared/schemas/common'
import { fillContext } from '~~/shared/schemas/template'

export default route({ params: byId('conversation'), query: fillContext }, ({ asker, params, query }) =>
  fillForStranger(asker, params.id, query))
