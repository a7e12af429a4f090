import { openRoute } from '~~/server/routing/route'
import { fromWhere, keepTokens } from '~~/server/routing/sign-in-cookies'
import { begin } from '~~/server/beginning/begin'
import { beginForm } from '~~/shared/schemas/begin'

export default openRoute({ body: beginForm, bytes: 4_096 }, async ({ event, body, now }) => {
  keepTokens(event, await begin(body, fromWhere(event), now))
  return { signedIn: true }
})
