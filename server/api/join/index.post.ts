import { join } from '~~/server/identity/join'
import { openRoute } from '~~/server/routing/route'
import { fromWhere, keepTokens } from '~~/server/routing/sign-in-cookies'
import { joinForm } from '~~/shared/schemas/people'

export default openRoute({ body: joinForm, bytes: 4_096 }, async ({ event, body, now }) => {
  keepTokens(event, await join(body, fromWhere(event), now))
  return { signedIn: true }
})
