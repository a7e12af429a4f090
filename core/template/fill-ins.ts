import { valueIn } from '../fields/own'
import { plainAmount } from '../fields/amount'
import { readFieldValue } from '../fields/value'
import type { Field, FieldKind } from './fields'

export const FILL_IN_KINDS = ['text', 'date', 'time', 'number', 'choice'] as const satisfies readonly FieldKind[]
export type FillInKind = typeof FILL_IN_KINDS[number]

/** A blank in a template that whoever sends it fills: a time, an amount, an order number. */
export interface FillIn {
  /** As written in a template: `fill_in.when` has the key `when`. */
  key: string
  label: string
  kind: FillInKind
  example: string
  /** What a choice is made from. */
  options: string[]
}

/** Fill-ins as entries of the field catalogue. */
export const fillInFields = (fillIns: FillIn[]): Field[] =>
  fillIns.map(({ key, label, kind, example, options }) => ({
    path: `fill_in.${key}`,
    group: 'fill_in',
    label,
    kind,
    example,
    ...(kind === 'choice' && { options }),
  }))

/** @property typed amounts as they were written, which they stay unless the template computes with them */
export type Answers
  = { ok: true, values: Record<string, string | number>, typed: Record<string, string> }
    | { ok: false, problems: Record<string, string> }

/**
 * Reads what somebody has filled in, each as its kind wants it.
 *
 * @param answers by key
 * @returns the values, or by key what is wrong; a blank that is left empty is wrong too
 */
export function readAnswers(fillIns: FillIn[], answers: Record<string, unknown>): Answers {
  const values: Record<string, string | number> = {}
  const typed: Record<string, string> = {}
  const problems: Record<string, string> = {}
  for (const { key, label, kind, options } of fillIns) {
    const given = valueIn(answers, key)
    const isAmount = kind === 'number' && typeof given === 'string'
    const reading = readFieldValue({ kind, options }, isAmount ? plainAmount(given) : given)
    if (isAmount) typed[key] = given.trim()
    if (!reading.ok) problems[key] = reading.reason
    else if (reading.value === null) problems[key] = `Fill in “${label}”.`
    else values[key] = reading.value as string | number
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, values, typed }
}

/** What stands in a preview before anything is filled in. */
export const exampleAnswers = (fillIns: FillIn[]): Record<string, string> =>
  Object.fromEntries(fillIns.map(({ key, label, example, options }) => [key, example || options[0] || label]))
