import { createHash, randomInt } from 'node:crypto'
import { Secret, TOTP } from 'otpauth'

/**
 * Codes that hold for a moment, as an app on a telephone shows them: RFC 6238, with what such apps take for granted, SHA-1, six
 * digits, thirty seconds (common practice).
 */
const [PERIOD_S, DIGITS] = [30, 6]

/** Of 160 bits, as RFC 4226 recommends. */
export const freshSecret = (): string => new Secret({ size: 20 }).base32

const codesOf = (secret: string, label: string, issuer: string) =>
  new TOTP({ secret: Secret.fromBase32(secret), label, issuer, algorithm: 'SHA1', digits: DIGITS, period: PERIOD_S })

/** For the picture that an app reads. */
export const uriOf = (secret: string, label: string, issuer: string): string => codesOf(secret, label, issuer).toString()

/**
 * In which of the periods since 1970 a code holds: the one of now, or one before or after it, for clocks that are not right.
 *
 * @returns null where it holds in none of them
 */
export function periodOf(secret: string, code: string, now: Date): number | null {
  const token = code.replace(/\s/g, '')
  // the library throws at whatever has another length in octets, such as wide digits
  if (!/^[0-9]{6}$/.test(token)) return null
  const delta = codesOf(secret, '', '').validate({ token, timestamp: now.getTime(), window: 1 })
  return delta === null ? null : Math.floor(now.getTime() / (PERIOD_S * 1_000)) + delta
}

/** Without letters and digits that look alike. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'

/** Ten letters, "K7QMF-2XWPA", of which 10^14 there are: each lets in once whoever has lost the telephone. */
export const freshRecoveryCode = (): string => {
  const letters = Array.from({ length: 10 }, () => LETTERS[randomInt(LETTERS.length)]!).join('')
  return `${letters.slice(0, 5)}-${letters.slice(5)}`
}

/** However it is typed. Nobody guesses one, so that a plain hash hides it. */
export const recoveryHash = (typed: string, colleagueId: string): string =>
  createHash('sha256').update(`${colleagueId} ${typed.toUpperCase().replace(/[^A-Z0-9]/g, '')}`).digest('base64url')

export const isRecoveryCode = (typed: string): boolean => /[a-z]/i.test(typed)
