import { route } from '~~/server/routing/route'
import { seeRecord } from '~~/server/texting/seen'
import { byId } from '~~/shared/schemas/common'

export default route({ params: byId('record') }, async ({ asker, params, now }) => {
  await seeRecord(asker, params.id, now)
  return { id: params.id }
})
