import { getRequestIP, setCookie } from 'h3'
import { openRoute, SIGN_IN_COOKIE } from '~~/server/http/route'
import { openSignIn } from '~~/server/identity/sign-in'
import { signInForm } from '~~/shared/schemas/sign-in'

export default openRoute({ body: signInForm, bytes: 2_048 }, async ({ event, body, now }) => {
  const token = await openSignIn(body.email, body.password, getRequestIP(event) ?? 'unknown', now)
  const secure = event.node.req.headers['x-forwarded-proto'] === 'https'
  setCookie(event, SIGN_IN_COOKIE, token, { httpOnly: true, sameSite: 'lax', path: '/', secure })
  return { signedIn: true }
})
