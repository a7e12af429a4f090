import { openRoute } from '~~/server/routing/route'
import { fromWhere, keepTokens } from '~~/server/routing/sign-in-cookies'
import { openSignIn } from '~~/server/identity/sign-in'
import { signInForm } from '~~/shared/schemas/sign-in'

export default openRoute({ body: signInForm, bytes: 2_048 }, async ({ event, body, now }) => {
  keepTokens(event, await openSignIn(body, fromWhere(event), now))
  return { signedIn: true }
})
