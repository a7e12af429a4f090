import { boolean, mixed, number, object, string, type InferType } from 'yup'
import { LEFT_OUT_REASONS, NUMBER_WAYS } from '../../core/bulk/fate'
import { BULK_STANDINGS } from '../../core/bulk/states'
import { MOST_DAYS } from '../bulk-texts'
import { freshId, idOf, line, page } from './common'
import { selection } from './list'
import { fillIns } from './template'

export const makeBulkForm = object({
  /** Made by the browser: making the same again gives the first. */
  id: freshId().required(),
  name: line(80).required('Give the bulk text a name.'),
  selection: selection.required(),
})
export type MakeBulkForm = InferType<typeof makeBulkForm>

/** More people for one that is there. */
export const addToBulkForm = object({ selection: selection.required() })

const isAnswers = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)

export const writeBulkForm = object({
  name: line(80).required('Give the bulk text a name.'),
  body: string().required('Write the text first.').max(5_000, 'A text to many holds 5,000 characters.'),
  templateId: idOf('template').nullable().default(null),
  templateVersion: number().integer().min(1).nullable().default(null),
  fillIns,
  answers: mixed<Record<string, unknown>>(isAnswers).default({}),
  /** None: each person’s usual line. */
  lineId: idOf('line').nullable().default(null),
  numberWay: string().oneOf(NUMBER_WAYS).default('mobile'),
  latelyDays: number().typeError('Write a number of days.').integer('Write whole days.').min(0, 'Write a number of days, or 0.')
    .max(90, 'At most 90 days.').default(3),
  occasion: line(120).default(''),
  place: line(120).default(''),
  /** Epoch milliseconds. */
  eventAt: number().integer().min(0).max(8.64e15).nullable().default(null),
})
export type WriteBulkForm = InferType<typeof writeBulkForm>

/** @property start when the first leaves, epoch milliseconds; null: at once */
export const startBulkForm = object({
  start: number().integer().min(0).max(8.64e15).nullable().default(null),
  days: number().typeError('Write a number of days.').integer('Write whole days.').min(1, 'At least one day.')
    .max(MOST_DAYS, `At most ${MOST_DAYS} days.`).default(1),
})
export type StartBulkForm = InferType<typeof startBulkForm>

export const turnBulkForm = object({ step: string().oneOf(['pause', 'go-on', 'stop'] as const).required() })
export type TurnBulkForm = InferType<typeof turnBulkForm>

/** Takes people out, or puts them back: one, or all who are left with a mark. */
export const takeOutForm = object({
  recordId: idOf('record').nullable().default(null),
  /** All of those whom we have texted lately. */
  lately: boolean().default(false),
  out: boolean().required(),
})
export type TakeOutForm = InferType<typeof takeOutForm>

export const bulkPeopleQuery = object({
  standing: string().oneOf(BULK_STANDINGS).nullable().default(null),
  reason: string().oneOf(LEFT_OUT_REASONS).nullable().default(null),
  lately: boolean().default(false),
  page: page(),
})
export type BulkPeopleQuery = InferType<typeof bulkPeopleQuery>
