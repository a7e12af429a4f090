import { openRoute } from '~~/server/http/route'
import { fromWhere, keepTokens } from '~~/server/http/sign-in-cookies'
import { begin } from '~~/server/identity/begin'
import { beginForm } from '~~/shared/schemas/begin'

export default openRoute({ body: beginForm, bytes: 4_096 }, async ({ event, body, now }) => {
  keepTokens(event, await begin(body, fromWhere(event), now))
  return { signedIn: true }
})
