import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import { LEFT_OUT_REASONS, NUMBER_WAYS } from '../../core/bulk/fate'
import { BULK_STANDINGS } from '../../core/bulk/states'
import { MOST_ASKING, MOST_DAYS } from '../bulk-texts'
import { freshId, idIfSeen, idOf, line, page } from './common'
import { whom, type Whom } from './list'
import { pictureIds } from './texting'
import { fillIns } from './template'

/** Which people of a bulk text: of one standing, left out for one reason, texted lately before, with or without an answer. */
const those = {
  standing: string().oneOf(BULK_STANDINGS).nullable().default(null),
  reason: string().oneOf(LEFT_OUT_REASONS).nullable().default(null),
  lately: boolean().default(false),
  answered: string().oneOf(['yes', 'no'] as const).nullable().default(null),
}
const thoseOfBulk = object({ bulkId: idOf('bulk-text').required(), ...those })
export type ThoseOfBulk = InferType<typeof thoseOfBulk>

/** Those of a call round who were reached, or who were not. */
const thoseOfRound = object({ roundId: idOf('round').required(), reached: boolean().required() })
export type ThoseOfRound = InferType<typeof thoseOfRound>

/** Those of a bulk text who have written, and are answered. */
const whoAsk = object({
  bulkId: idOf('bulk-text').required(),
  recordIds: array(idIfSeen().required()).min(1, 'Choose at least one of them.').max(MOST_ASKING).required(),
})
export type WhoAsk = InferType<typeof whoAsk>

/** To whom: out of a list, a group, another bulk text or a call round, or as an answer. */
const anyWhom = {
  ...whom,
  ofBulk: thoseOfBulk.nullable().default(null),
  ofRound: thoseOfRound.nullable().default(null),
  whoAsk: whoAsk.nullable().default(null),
}
export interface BulkWhom extends Whom { ofBulk: ThoseOfBulk | null, ofRound: ThoseOfRound | null, whoAsk: WhoAsk | null }

export const makeBulkForm = object({
  /** Made by the browser: making the same again gives the first. */
  id: freshId().required(),
  name: line(80).required('Give the bulk text a name.'),
  /** About the same occasion as this one, for another audience. */
  besideId: idOf('bulk-text').nullable().default(null),
  ...anyWhom,
})
export type MakeBulkForm = InferType<typeof makeBulkForm>

/** More people for one that is there. */
export const addToBulkForm = object(anyWhom)

/** The same once more, to those who are meant today. */
export const repeatBulkForm = object({ id: freshId().required() })

/** Puts people of a bulk text into a group by hand. */
export const bulkToGroupForm = object({ id: freshId().required(), groupId: idOf('group').required('Choose a group.'), ...those })
export type BulkToGroupForm = InferType<typeof bulkToGroupForm>

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
  /** And whoever has none, over any that suits; else over the nearest. */
  spread: boolean().default(false),
  numberWay: string().oneOf(NUMBER_WAYS).default('mobile'),
  numberLabel: line(40).default('').when('numberWay', { is: 'label', then: one => one.required('Write the label, as it stands on the records.') }),
  pictureIds: pictureIds(),
  latelyDays: number().typeError('Write a number of days.').nonNullable('Write a number of days.').integer('Write whole days.').min(0, 'Write a number of days, or 0.')
    .max(90, 'At most 90 days.').default(3),
  holdOut: number().typeError('Write a number, or 0.').nonNullable('Write a number, or 0.').integer('Write a whole number.').min(0, 'Write a number, or 0.')
    .max(50, 'At most half of them, 50.').default(0),
  occasion: line(120).default(''),
  place: line(120).default(''),
  /** Epoch milliseconds. */
  eventAt: number().integer().min(0).max(8.64e15).nullable().default(null),
})
export type WriteBulkForm = InferType<typeof writeBulkForm>

/** How many answers an hour can be worked off; null: it goes as fast as its lines. */
const answersAnHour = () => number().typeError('Write a number of answers.').integer('Write a whole number.').min(1, 'At least one an hour.')
  .max(10_000, 'At most 10,000 an hour.').nullable().default(null)

export const paceForm = object({ answersAnHour: answersAnHour() })

/** @property start when the first leaves, epoch milliseconds; null: at once */
export const startBulkForm = object({
  start: number().integer().min(0).max(8.64e15).nullable().default(null),
  days: number().typeError('Write a number of days.').integer('Write whole days.').min(1, 'At least one day.')
    .max(MOST_DAYS, `At most ${MOST_DAYS} days.`).default(1),
  answersAnHour: answersAnHour(),
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

/** What somebody gets alone: on which number, and in which words; null: as all the others. */
export const ownTextForm = object({
  phoneId: idOf('phone').nullable().default(null),
  words: string().trim().max(5_000, 'A text to many holds 5,000 characters.').nullable().default(null)
    .test('written', 'Write what they get, or take the words of all the others.', words => words !== ''),
})
export type OwnTextForm = InferType<typeof ownTextForm>

/** Somebody in a bulk text. */
export const personOfBulk = object({ id: idOf('bulk-text').required(), recordId: idOf('record').required() })

/** Somebody has answered in another way than by a text, or has not after all. */
export const answeredForm = object({ answered: boolean().required() })

export const bulkPeopleQuery = object({
  ...those,
  page: page(),
})
export type BulkPeopleQuery = InferType<typeof bulkPeopleQuery>
