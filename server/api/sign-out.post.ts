import { deleteCookie, getCookie } from 'h3'
import { openRoute } from '~~/server/routing/route'
import { SIGN_IN_COOKIE } from '~~/server/routing/sign-in-cookies'
import { endSignIn } from '~~/server/identity/sign-in'

export default openRoute({}, async ({ event, now }) => {
  await endSignIn(getCookie(event, SIGN_IN_COOKIE), now)
  deleteCookie(event, SIGN_IN_COOKIE, { path: '/' })
  return { signedIn: false }
})
