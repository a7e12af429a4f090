import { date, number, object, string, ValidationError, type InferType } from 'yup'
import type { CarrierEvent } from '../port'

const REPORTS = ['text.sent', 'text.delivered', 'text.undelivered', 'text.received', 'text.charged', 'hello'] as const

const MOST_MICROS = 1_000_000_000_000

/** What a text cost, in whole micro-units; a gateway that does not know says nothing of it. */
export const priceShape = object({
  micros: number().integer().min(0).max(MOST_MICROS).required(),
  currency: string().matches(/^[A-Z]{3}$/).required(),
})

const e164 = () => string().matches(/^\+[1-9]\d{6,14}$/, 'a number is written as in E.164, with its plus')

/** What a gateway tells, as docs/gateway.md has it. */
const toldShape = object({
  id: string().max(100).required(),
  type: string().oneOf(REPORTS).required(),
  at: date().required(),
  data: object({
    id: string().max(100).default(''),
    key: string().max(100).nullable().default(null),
    code: string().max(60).nullable().default(null),
    // who writes may be no number, such as a name
    from: string().max(20).default(''),
    to: e164().nullable().default(null),
    text: string().max(40_000).default(''),
    parts: number().integer().min(1).max(100).nullable().default(null),
    price: priceShape.nullable().default(null),
    nonce: string().max(100).default(''),
  }).required(),
})
type Told = InferType<typeof toldShape>

/** @throws ValidationError for what is none of its reports, or lacks something */
export function readTold(input: unknown): CarrierEvent {
  const { id, type, at, data } = toldShape.validateSync(input)
  if (type === 'hello') return { id, at, kind: 'hello', nonce: data.nonce }
  const ref = needed(data, 'id')
  if (type === 'text.received')
    // a NUL is no character of any alphabet, and no database keeps it: one stands in for it that says so
    return { id, at, kind: 'received', ref, from: needed(data, 'from'), to: needed(data, 'to'), text: data.text.replaceAll('\0', '\uFFFD') }
  if (type === 'text.charged') {
    const { micros, currency } = needed(data, 'price')
    return { id, at, kind: 'charged', ref, key: data.key, charge: { parts: needed(data, 'parts'), costMicros: micros, currency } }
  }
  return { id, at, kind: type.slice('text.'.length) as 'sent', ref, key: data.key, code: data.code }
}

function needed<K extends keyof Told['data']>(data: Told['data'], field: K): NonNullable<Told['data'][K]> {
  const value = data[field]
  if (value === null || value === undefined || value === '') throw new ValidationError(`data.${field} is a required field`, data, `data.${field}`)
  return value
}
