import { isDay } from '../conditions/conditions'
import { readPhone } from '../phone/read'
import type { FieldKind } from '../template/fields'

/** A value as records keep it; null is none. */
export type FieldValue = string | number | boolean | null

export const sayFieldValue = (value: FieldValue): string =>
  value === null ? 'nothing' : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)

export type FieldReading = { ok: true, value: FieldValue } | { ok: false, reason: string }

/** What is needed of a field to read its values. */
export interface ReadableField { kind: FieldKind, options?: string[] }

const LONGEST = 500
const given = (value: FieldValue): FieldReading => ({ ok: true, value })
const refused = (reason: string): FieldReading => ({ ok: false, reason })

/**
 * Reads a value that somebody typed into a field, or that stood in a file, as the field's kind wants it.
 * Empty is no value, for every kind.
 *
 * @param country of a telephone number that names none
 */
export function readFieldValue({ kind, options }: ReadableField, input: unknown, country?: string): FieldReading {
  if (kind === 'yes-no') return readYesNo(input)
  if (input === null || input === undefined) return given(null)
  if (typeof input !== 'string' && typeof input !== 'number') return refused('Write it as text.')
  const text = String(input).trim()
  if (text === '') return given(null)
  if (text.length > LONGEST) return refused(`That is longer than ${LONGEST} characters. Shorten it.`)
  switch (kind) {
    case 'number':
      return readNumber(text)
    case 'money':
      return readMoney(text)
    case 'date':
      return isDay(text) ? given(text) : refused('Write the day as 2026-12-03.')
    case 'time':
      return /^([01]?\d|2[0-3]):[0-5]\d$/.test(text) ? given(text.padStart(5, '0')) : refused('Write the time as 14:30.')
    case 'choice':
      return readChoice(text, options ?? [])
    case 'phone':
      return readNumberOfPhone(text, country)
    case 'mail':
      return /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(text)
        ? given(text)
        : refused('This is not a mail address. It needs a name, an @ and a place.')
    case 'link':
      return readLink(text)
    case 'text':
      return given(text)
  }
}

function readYesNo(input: unknown): FieldReading {
  if (input === null || input === undefined || input === '') return given(null)
  if (typeof input === 'boolean') return given(input)
  if (typeof input !== 'string' && typeof input !== 'number') return refused('Write yes or no.')
  const word = String(input).trim().toLowerCase()
  if (['yes', 'y', 'true', '1', 'x'].includes(word)) return given(true)
  if (['no', 'n', 'false', '0'].includes(word)) return given(false)
  return refused('Write yes or no.')
}

/** A number with a point, and commas between thousands as people write them. */
function readNumber(text: string): FieldReading {
  const plain = /^-?\d{1,3}(,\d{3})+(\.\d+)?$/.test(text) ? text.replaceAll(',', '') : text
  return /^-?\d{1,15}(\.\d{1,9})?$/.test(plain) ? given(Number(plain)) : refused('Write a number, such as 24 or 1.5.')
}

function readMoney(text: string): FieldReading {
  const amount = readNumber(text.replace(/^[$£€]\s*/, ''))
  if (!amount.ok || Math.round(Number(amount.value) * 100) / 100 !== amount.value) return refused('Write an amount, such as 640 or 12.50.')
  return amount
}

function readChoice(text: string, options: string[]): FieldReading {
  const option = options.find(one => one.toLowerCase() === text.toLowerCase())
  return option === undefined ? refused(`Choose one of ${options.join(', ')}.`) : given(option)
}

function readNumberOfPhone(text: string, country?: string): FieldReading {
  const reading = readPhone(text, country)
  return reading.ok ? given(reading.e164) : refused('This cannot be a telephone number. Write it with its area code.')
}

function readLink(text: string): FieldReading {
  const link = /^https?:\/\//i.test(text) ? text : `https://${text}`
  return URL.canParse(link) && new URL(link).hostname.includes('.')
    ? given(link)
    : refused('This is not an address of a page, such as https://pannier.example.')
}
