import {
  findPhoneNumbersInText,
  isSupportedCountry,
  parsePhoneNumberWithError,
  ParseError,
  validatePhoneNumberLength,
  type CountryCode,
  type PhoneNumber,
} from 'libphonenumber-js/max'
import { fictionRange } from './fiction'
import type { PhoneKind, UnusableReason } from './kinds'

export type { PhoneKind, UnusableReason } from './kinds'

export type PhoneReading
  = | { ok: true, e164: string, country: string, kind: PhoneKind, extension?: string }
    | { ok: false, reason: UnusableReason }

/** Region of numbers that belong to no country, such as +800 (UN M.49 "world"). */
const WORLD = '001'

const KINDS: Partial<Record<string, PhoneKind>> = { MOBILE: 'mobile', FIXED_LINE: 'landline', TOLL_FREE: 'toll-free' }

const PARSE_REASONS: Record<string, UnusableReason> = {
  NOT_A_NUMBER: 'not-a-number',
  INVALID_COUNTRY: 'unknown-country-code',
  TOO_SHORT: 'too-short',
  TOO_LONG: 'too-long',
}

/**
 * Reads a telephone number as a person types or pastes it: brackets, invisible marks, tel: links,
 * a trunk zero in brackets, the international prefix of the given country, an extension.
 *
 * @param input what was typed
 * @param country ISO 3166 two-letter code, for a number that names no country itself
 * @returns the number as E.164 (ITU-T E.164, no extension), or why it can't be one
 */
export function readPhone(input: string, country?: string): PhoneReading {
  const typed = withoutDecoration(input)
  if (typed === '') return { ok: false, reason: 'empty' }
  if (!/\d/.test(typed)) return { ok: false, reason: 'not-a-number' }
  const home = country && isSupportedCountry(country.toUpperCase()) ? country.toUpperCase() as CountryCode : undefined
  if (holdsSeveral(typed, home)) return { ok: false, reason: 'several-numbers' }
  const parsed = parse(typed, home)
  if (typeof parsed === 'string') return { ok: false, reason: parsed }
  return judge(parsed)
}

function judge(number: PhoneNumber): PhoneReading {
  const e164 = number.number as string
  const extension = number.ext ? { extension: number.ext as string } : {}
  const fiction = fictionRange(e164)
  if (fiction && (fiction.country || number.country)) {
    return { ok: true, e164, country: fiction.country ?? number.country!, kind: fiction.kind, ...extension }
  }
  if (!number.isValid()) return { ok: false, reason: lengthReason(number) }
  return { ok: true, e164, country: number.country ?? WORLD, kind: KINDS[number.getType() ?? ''] ?? 'unknown', ...extension }
}

function lengthReason(number: PhoneNumber): UnusableReason {
  const length = validatePhoneNumberLength(number.number)
  if (length === 'TOO_SHORT') return 'too-short'
  if (length === 'TOO_LONG') return 'too-long'
  return 'not-assigned'
}

function parse(typed: string, home: CountryCode | undefined): PhoneNumber | UnusableReason {
  try {
    return parsePhoneNumberWithError(typed, home ? { defaultCountry: home } : undefined)
  }
  catch (error) {
    if (!(error instanceof ParseError)) throw error
    if (error.message === 'INVALID_COUNTRY' && !typed.includes('+')) return 'needs-country'
    return PARSE_REASONS[error.message] ?? 'not-a-number'
  }
}

/** Two numbers in one field: taking either would be a guess. */
function holdsSeveral(typed: string, home: CountryCode | undefined): boolean {
  if (typed.replace(/\D/g, '').length < 12) return false
  return findPhoneNumbersInText(typed, home ? { defaultCountry: home } : undefined).length > 1
}

/** Takes off what people's clipboards add: width, invisible marks, a link's scheme, a label before the number. */
function withoutDecoration(input: string): string {
  const plain = input
    .normalize('NFKC')
    .replace(/[\p{Cf}\u{FE00}-\u{FE0F}]/gu, '')
    .replace(/\p{Nd}/gu, decimalDigit)
    .replace(/[\p{Pd}\u2212]/gu, '-')
    .trim()
  return withoutTrunkZero(withoutScheme(plain))
}

/** Digits of other scripts, as telephones set to them write them. A digit's value is its distance from its script's zero. */
function decimalDigit(digit: string): string {
  let zero = digit.codePointAt(0)!
  while (zero > 0x30 && /^\p{Nd}$/u.test(String.fromCodePoint(zero - 1)) && digit.codePointAt(0)! - zero < 9) zero--
  return digit <= '9' ? digit : String(digit.codePointAt(0)! - zero)
}

/** tel: (RFC 3966) and sms: (RFC 5724) links; their parameters but the extension and the context go. */
function withoutScheme(text: string): string {
  const link = /^(?:tel|sms|callto):(?:\/\/)?(.*)$/is.exec(text)
  if (!link) return text
  const [subscriber = '', ...parameters] = decodeLink(link[1]!).split(/[;?]/)
  const find = (name: string) => parameters.find(p => p.toLowerCase().startsWith(`${name}=`))?.slice(name.length + 1)
  const context = find('phone-context')
  const extension = find('ext')
  const number = context?.startsWith('+') && !subscriber.trim().startsWith('+') ? `${context}${subscriber}` : subscriber
  return extension ? `${number} ext. ${extension}` : number
}

function decodeLink(text: string): string {
  try {
    return decodeURIComponent(text)
  }
  catch {
    return text
  }
}

/**
 * "+44 (0)117 ...": the zero is for callers inside the country only. Italy and its like, whose zero is part of the number,
 * never write it so.
 */
function withoutTrunkZero(text: string): string {
  return text.replace(/^(\D*(?:\+|00|011)[\s.\-/]*\d{1,3}[\s.\-/]*)\(\s*0\s*\)/, '$1 ')
}
