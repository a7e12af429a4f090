import { isGroup, type Condition, type Conditions, type Test } from '~~/core/conditions/conditions'
import type { ListColumn } from '~~/shared/list'
import { calendarDay } from './time'

/** What a test says between the field and the value, where one chooses it. */
export const TEST_WORDS: Record<Test, string> = {
  'is': 'is', 'is-not': 'is not', 'contains': 'contains', 'starts': 'begins with',
  'one-of': 'is', 'none-of': 'is not',
  'at-least': 'is at least', 'at-most': 'is at most',
  'on': 'is on', 'before': 'is before', 'after': 'is after',
  'last-days': 'was in the last … days', 'next-days': 'is in the next … days',
  'older-than-days': 'is longer ago than … days', 'not-for-days': 'is longer ago than … days, or never was',
  'yes': 'yes', 'no': 'no', 'empty': 'is empty', 'filled': 'is not empty',
}

/** "last contact is longer ago than 30 days, or never was": a condition as part of a sentence. */
export function sayCondition({ field, test, value }: Condition, columns: ListColumn[]): string {
  const column = columns.find(one => one.key === field)
  const label = (column?.label ?? field).toLowerCase()
  if (test === 'yes' || test === 'no') return test === 'yes' ? label : `not ${label}`
  const words = TEST_WORDS[test]
  if (words.includes('…')) return `${label} ${words.replace('…', String(value))}`
  if (value === undefined) return `${label} ${words}`
  if (Array.isArray(value))
    return `${label} ${words} ${listWords(value.map(one => column?.choices?.find(choice => choice.value === one)?.label ?? named(one)))}`
  if (test === 'on' || test === 'before' || test === 'after') return `${label} ${words} ${calendarDay(String(value))}`
  return `${label} ${words} ${typeof value === 'number' ? value.toLocaleString('en-US') : `“${value}”`}`
}

/** A tag or a choice is its own name; an id of something that is there no more says nothing to anybody. */
const named = (value: string): string => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(value) ? 'one that is gone' : value

/** "New, Trial or Offer". */
export function listWords(words: string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`
}

export const joining = (match: Conditions['match']): string => match === 'all' ? 'and' : 'or'

/** All of them as a sentence; groups within stand in brackets. */
export const sayConditions = ({ match, of }: Conditions, columns: ListColumn[]): string =>
  of.map(one => isGroup(one) ? `(${sayConditions(one, columns)})` : sayCondition(one, columns)).join(` ${joining(match)} `)
