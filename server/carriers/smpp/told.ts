import { date, mixed, object, string, type InferType } from 'yup'
import type { CarrierEvent } from '../port'

const KINDS = ['sent', 'delivered', 'undelivered', 'received'] as const

/** What was heard of an SMS centre, as it is told on, and kept where nobody can take it. */
const TOLD = object({
  id: string().max(200).required(),
  at: date().required(),
  kind: mixed<typeof KINDS[number]>().oneOf(KINDS).required(),
  ref: string().max(100).required(),
  code: string().max(60).nullable().default(null),
  from: string().max(20).default(''),
  to: string().max(20).default(''),
  text: string().max(40_000).default(''),
})

export type ToldBySmsc = Pick<InferType<typeof TOLD>, 'id' | 'kind' | 'ref'> & { at: string, code?: string | null, from?: string, to?: string, text?: string }

/** @throws Yup's ValidationError */
export function readTold(told: unknown): CarrierEvent {
  const { id, at, kind, ref, code, from, to, text } = TOLD.validateSync(told)
  return kind === 'received' ? { id, at, kind, ref, from, to, text } : { id, at, kind, ref, key: null, code }
}
