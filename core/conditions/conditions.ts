/** What a condition can be about: how its values compare decides what can be asked of them. */
export type ConditionKind = 'words' | 'one' | 'many' | 'number' | 'day' | 'instant' | 'yes-no'

export type Test
  = | 'is' | 'is-not' | 'contains' | 'starts'
    | 'one-of' | 'none-of'
    | 'at-least' | 'at-most'
    | 'on' | 'before' | 'after' | 'last-days' | 'next-days' | 'older-than-days' | 'not-for-days'
    | 'yes' | 'no'
    | 'empty' | 'filled'

/** The tests of each kind, in the order in which they are offered. */
export const TESTS: Record<ConditionKind, readonly Test[]> = {
  'words': ['contains', 'is', 'is-not', 'starts', 'empty', 'filled'],
  'one': ['one-of', 'none-of', 'empty', 'filled'],
  'many': ['one-of', 'none-of', 'empty', 'filled'],
  'number': ['at-least', 'at-most', 'is', 'is-not', 'empty', 'filled'],
  'day': ['on', 'before', 'after', 'last-days', 'next-days', 'older-than-days', 'empty', 'filled'],
  'instant': ['not-for-days', 'last-days', 'older-than-days', 'on', 'before', 'after', 'empty', 'filled'],
  'yes-no': ['yes', 'no'],
}

/** What a test compares with. */
export type ValueShape = 'nothing' | 'words' | 'number' | 'day' | 'days' | 'choices'

export function shapeOf(test: Test, kind: ConditionKind): ValueShape {
  switch (test) {
    case 'empty': case 'filled': case 'yes': case 'no': return 'nothing'
    case 'one-of': case 'none-of': return 'choices'
    case 'last-days': case 'next-days': case 'older-than-days': case 'not-for-days': return 'days'
    case 'on': case 'before': case 'after': return 'day'
    case 'at-least': case 'at-most': return 'number'
    case 'contains': case 'starts': return 'words'
    case 'is': case 'is-not': return kind === 'number' ? 'number' : 'words'
  }
}

export interface Condition { field: string, test: Test, value?: string | number | string[] }

/** All of these, or any of these; groups may hold groups. An empty one asks for nothing and holds. */
export interface Conditions { match: 'all' | 'any', of: (Condition | Conditions)[] }

export const isGroup = (one: Condition | Conditions): one is Conditions => 'match' in one

export const NO_CONDITIONS: Conditions = { match: 'all', of: [] }

const DEEPEST = 3
const MOST = 40
const LONGEST = 200

/** Why conditions cannot be asked, with the place: `of.1.of.0`. */
export interface ConditionProblem { place: string, reason: string }

/**
 * Reads conditions from outside.
 *
 * @param kindOf the kind of a field; null if there is no such field
 * @returns the conditions, nothing else of the input in them; or the first problem
 */
export function readConditions(
  input: unknown,
  kindOf: (field: string) => ConditionKind | null,
): { ok: true, conditions: Conditions } | { ok: false, problem: ConditionProblem } {
  let count = 0

  const refuse = (place: string, reason: string): never => {
    throw new Refused({ place, reason })
  }

  function readGroup(value: unknown, place: string, depth: number): Conditions {
    const { match, of } = Object(value) as Partial<Conditions>
    if (depth > DEEPEST) refuse(place, `Conditions go ${DEEPEST} groups deep at most.`)
    if ((match !== 'all' && match !== 'any') || !Array.isArray(of))
      return refuse(place, 'A group of conditions holds for all or any of a list.')
    return { match, of: of.map((one: unknown, i) => readOne(one, `${place}${place && '.'}of.${i}`, depth)) }
  }

  function readOne(value: unknown, place: string, depth: number): Condition | Conditions {
    if (++count > MOST) refuse(place, `At most ${MOST} conditions at once.`)
    if (typeof value !== 'object' || value === null) return refuse(place, 'This is no condition.')
    if ('match' in value) return readGroup(value, place, depth + 1)
    const { field, test, value: wanted } = value as Partial<Condition>
    const kind = typeof field === 'string' ? kindOf(field) : null
    if (!kind) return refuse(place, `There is no field “${String(field).slice(0, 60)}” here.`)
    if (!TESTS[kind].includes(test as Test)) return refuse(place, 'This field cannot be asked so.')
    const shape = shapeOf(test!, kind)
    if (shape === 'nothing') return { field: field!, test: test! }
    return { field: field!, test: test!, value: readValue(wanted, shape) ?? refuse(place, NEEDS[shape]) }
  }

  try {
    return { ok: true, conditions: readGroup(input, '', 1) }
  }
  catch (error) {
    if (error instanceof Refused) return { ok: false, problem: error.problem }
    throw error
  }
}

class Refused extends Error {
  constructor(readonly problem: ConditionProblem) {
    super(problem.reason)
  }
}

const NEEDS: Record<Exclude<ValueShape, 'nothing'>, string> = {
  words: 'Type what to look for.',
  number: 'Type a number.',
  day: 'Choose a day.',
  days: 'Type how many days, from 0 to 10,000.',
  choices: 'Choose at least one.',
}

function readValue(value: unknown, shape: Exclude<ValueShape, 'nothing'>): Condition['value'] | null {
  switch (shape) {
    case 'words':
      return typeof value === 'string' && value.trim() !== '' && value.length <= LONGEST ? value.trim() : null
    case 'number':
      return numberIn(value)
    case 'days': {
      const days = numberIn(value)
      return days !== null && Number.isInteger(days) && days >= 0 && days <= 10_000 ? days : null
    }
    case 'day':
      return typeof value === 'string' && isDay(value) ? value : null
    case 'choices':
      return Array.isArray(value)
        && value.length > 0
        && value.length <= LONGEST
        && value.every(one => typeof one === 'string' && one !== '' && one.length <= LONGEST)
        ? (value as string[])
        : null
  }
}

function numberIn(value: unknown): number | null {
  const number = typeof value === 'string' && value.trim() !== '' ? Number(value) : value
  return typeof number === 'number' && Number.isFinite(number) ? number : null
}

/** A day of the calendar as `2026-11-25`. */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d\d-\d\d$/.test(text)) return false
  const time = Date.parse(`${text}T00:00:00Z`)
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text)
}
