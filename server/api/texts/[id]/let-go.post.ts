import { route } from '~~/server/routing/route'
import { letGo } from '~~/server/texting/take-back'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('message') }, async ({ asker, params, now }) => {
  await letGo(asker, params.id, now)
  return { id: params.id }
})
