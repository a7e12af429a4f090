import { isGroup, type Condition, type ConditionKind, type Conditions } from './conditions'
import { daysOf, instantsOf, type Range, type Today } from './resolve'

/** The values of a thing by the keys of its fields: text, number, `2026-11-25`, epoch milliseconds, lists, yes or no. */
export type Values = Record<string, unknown>

/** Whether conditions hold for a thing. The server asks the same of all rows at once in SQL; a test holds the two alike. */
export function judge(conditions: Conditions, values: Values, kindOf: (field: string) => ConditionKind, today: Today): boolean {
  const holds = (one: Condition | Conditions): boolean =>
    isGroup(one) ? judge(one, values, kindOf, today) : judgeOne(one, values[one.field], kindOf(one.field), today)
  if (conditions.of.length === 0) return true
  return conditions.match === 'all' ? conditions.of.every(holds) : conditions.of.some(holds)
}

function judgeOne(condition: Condition, value: unknown, kind: ConditionKind, today: Today): boolean {
  const { test, value: wanted } = condition
  const empty = value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0)
  if (test === 'empty') return empty
  if (test === 'filled') return !empty
  switch (kind) {
    case 'yes-no': return (value === true) === (test === 'yes')
    case 'number': return judgeNumber(test, empty ? null : Number(value), Number(wanted))
    case 'words': return judgeWords(test, empty ? null : String(value).toLowerCase(), String(wanted).toLowerCase())
    case 'one': return ((wanted as string[]).includes(String(value)) && !empty) === (test === 'one-of')
    case 'many': return ((value ?? []) as string[]).some(one => (wanted as string[]).includes(one)) === (test === 'one-of')
    case 'day': return within(daysOf(condition, today.day), empty ? null : String(value))
    case 'instant': return within(instantsOf(condition, today), empty ? null : Number(value))
  }
}

function judgeNumber(test: Condition['test'], value: number | null, wanted: number): boolean {
  if (value === null) return test === 'is-not'
  switch (test) {
    case 'at-least': return value >= wanted
    case 'at-most': return value <= wanted
    case 'is': return value === wanted
    default: return value !== wanted
  }
}

function judgeWords(test: Condition['test'], value: string | null, wanted: string): boolean {
  if (value === null) return test === 'is-not'
  switch (test) {
    case 'contains': return value.includes(wanted)
    case 'starts': return value.startsWith(wanted)
    case 'is': return value === wanted
    default: return value !== wanted
  }
}

function within<T extends string | number>({ from, to, orEmpty }: Range<T>, value: T | null): boolean {
  if (value === null) return orEmpty
  return (from === null || value >= from) && (to === null || value < to)
}
