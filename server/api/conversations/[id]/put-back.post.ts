import { route } from '~~/server/routing/route'
import { putBack } from '~~/server/texting/owed'
import { byId } from '~~/shared/schemas/common'
import { putBackForm } from '~~/shared/schemas/inbox'

export default route({ params: byId('conversation'), body: putBackForm }, async ({ asker, params, body, now }) => {
  await putBack(asker, params.id, body, now)
  return { id: params.id }
})
