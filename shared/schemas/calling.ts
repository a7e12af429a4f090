import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import { day, uuid } from './common'

export const dialForm = object({
  /** Made by the browser: dialling the same again gives the first call. */
  id: uuid().required(),
  phoneId: uuid().required('Choose a number to call.'),
  /** Left out, it is chosen: the line used last with the number, else the nearest. */
  lineId: uuid().nullable().default(null),
  /** "Yes, at night": for this one call. */
  nightAllowed: boolean().default(false),
})
export type DialForm = InferType<typeof dialForm>

export const callNotesForm = object({ notes: string().defined().max(10_000, 'The notes are too long. Put what matters into a note of its own.') })

const time = () => string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time such as 09:30.')

/** What is said of one effect before the key is pressed. */
const effectChoice = object({
  position: number().integer().min(0).max(20).required(),
  leftOut: boolean().default(false),
  /** The text as it was changed by hand. */
  text: string().max(10_000, 'No carrier takes a text of this length.').nullable().default(null),
  answers: mixed((value): value is Record<string, string> => typeof value === 'object' && value !== null && Object.values(value).every(one => typeof one === 'string' && one.length <= 500)).default({}),
  /** The day and the time of a task or a call-back. */
  day: day().nullable().default(null),
  time: time().nullable().default(null),
})
export type EffectChoice = InferType<typeof effectChoice>

export const disposeForm = object({
  dispositionId: uuid().required('Say how it went.'),
  choices: array().of(effectChoice.required()).max(20).default([]),
})
export type DisposeForm = InferType<typeof disposeForm>

export const taskForm = object({
  id: uuid().required(),
  kind: string().oneOf(['task', 'call-back'] as const).default('task'),
  title: string().trim().max(200, 'Say it in 200 characters.').required('Say what is to be done.'),
  day: day().required('Choose a day.'),
  time: time().required('Choose a time.'),
})
export type TaskForm = InferType<typeof taskForm>

/** A note at a moment of a recording. */
export const markForm = object({
  id: uuid().required(),
  atMs: number().integer().min(0).required(),
  words: string().trim().max(500, 'Say it in 500 characters.').required('Say what is to be noted here.'),
})
export type MarkForm = InferType<typeof markForm>
