import { setSingleKeys } from '~~/server/identity/colleagues'
import { route } from '~~/server/routing/route'
import { keysForm } from '~~/shared/schemas/sign-in'

export default route({ body: keysForm }, async ({ asker, body }) => {
  await setSingleKeys(asker.id, body.singleKeys)
})
