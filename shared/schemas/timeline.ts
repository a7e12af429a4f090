import { array, number, object, string, type InferType } from 'yup'
import { DIRECTIONS, GROUPS } from '../../core/timeline/groups'
import { day, idIfSeen, idOf, line } from './common'

/** One value of an address where several may stand. */
const several = (_value: unknown, original: unknown) => original === undefined ? undefined : [original].flat()

/** To what a timeline is narrowed. Days are whole days by the reader's clock. */
export const sieve = object({
  groups: array(string().oneOf(GROUPS).required()).transform(several).default([]),
  from: string().oneOf(DIRECTIONS).transform((value: unknown) => value || undefined),
  colleagueId: idOf('colleague'),
  lineId: idOf('line'),
  since: day(),
  until: day(),
  /** Words that stand in it, the last one perhaps half typed. */
  words: line(100).default(''),
})
export type Sieve = InferType<typeof sieve>

export const timelineQuery = sieve.shape({
  beforeAt: number().integer(),
  beforeId: idIfSeen(),
  afterAt: number().integer(),
  afterId: idIfSeen(),
  /** An entry that somebody wants to see with what stands around it. */
  around: idIfSeen(),
  /** A day that somebody wants to see, with what stands around it. */
  on: day(),
  /** Single entries, after a notice. */
  only: array(idIfSeen().required()).max(50).transform(several).default(undefined),
})

export const EXPORT_FORMATS = ['csv', 'jsonl'] as const

export const timelineExport = sieve.shape({ format: string().oneOf(EXPORT_FORMATS).default('csv') })

/** What a text or a call shows in a row of its own, and by what rows can be put in order. */
export const MESSAGE_COLUMNS = [
  'at', 'way', 'who', 'words', 'name', 'state', 'number', 'line', 'template', 'parts', 'cost', 'ref',
] as const
export type MessageColumn = typeof MESSAGE_COLUMNS[number]

export const messagesQuery = sieve.shape({
  sort: string().oneOf(MESSAGE_COLUMNS).default('at'),
  direction: string().oneOf(['up', 'down'] as const).default('down'),
  page: number().integer().min(1).max(100_000).default(1),
})
export type MessagesQuery = InferType<typeof messagesQuery>
