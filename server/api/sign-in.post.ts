import { getCookie, setCookie } from 'h3'
import { addressOf, comesThrough, readProxies } from '~~/server/http/address'
import { DEVICE_COOKIE, openRoute, SIGN_IN_COOKIE } from '~~/server/http/route'
import { openSignIn } from '~~/server/identity/sign-in'
import { settings } from '~~/server/settings'
import { signInForm } from '~~/shared/schemas/sign-in'

const YEAR_S = 365 * 86_400
const proxies = readProxies(settings().PLAUDER_TRUSTED_PROXIES)

export default openRoute({ body: signInForm, bytes: 2_048 }, async ({ event, body, now }) => {
  const { req } = event.node
  const tokens = await openSignIn(body.email, body.password, { address: addressOf(proxies, req), userAgent: req.headers['user-agent'], device: getCookie(event, DEVICE_COOKIE) }, now)
  const cookie = { httpOnly: true, sameSite: 'lax', path: '/', secure: comesThrough(proxies, req) && req.headers['x-forwarded-proto'] === 'https' } as const
  setCookie(event, SIGN_IN_COOKIE, tokens.signIn, cookie)
  setCookie(event, DEVICE_COOKIE, tokens.device, { ...cookie, maxAge: YEAR_S })
  return { signedIn: true }
})
