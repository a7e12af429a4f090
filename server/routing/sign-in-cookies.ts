import { getCookie, setCookie, type H3Event } from 'h3'
import type { From, Tokens } from '../identity/sign-in'
import { settings } from '../settings'
import { addressOf, comesThrough, readProxies } from '../http/address'

export const SIGN_IN_COOKIE = 'plauder'
/** By it a browser is known in which somebody was signed in before. */
export const DEVICE_COOKIE = 'plauder-device'

const YEAR_S = 365 * 86_400

let proxies: ReturnType<typeof readProxies> | null = null
const trusted = () => proxies ??= readProxies(settings().PLAUDER_TRUSTED_PROXIES)

/** From where somebody signs in. */
export const fromWhere = (event: H3Event): From => ({
  address: addressOf(trusted(), event.node.req),
  userAgent: event.node.req.headers['user-agent'],
  device: getCookie(event, DEVICE_COOKIE),
})

/** Leaves the tokens of a sign-in in the browser, where no script reads them. */
export function keepTokens(event: H3Event, tokens: Tokens): void {
  const { req } = event.node
  const cookie = {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    secure: comesThrough(trusted(), req) && req.headers['x-forwarded-proto'] === 'https',
  } as const
  setCookie(event, SIGN_IN_COOKIE, tokens.signIn, cookie)
  setCookie(event, DEVICE_COOKIE, tokens.device, { ...cookie, maxAge: YEAR_S })
}
