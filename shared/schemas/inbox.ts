import { boolean, number, object, string, type InferType } from 'yup'
import { MODULES } from '../modules'
import { INBOX_FILTERS, TEXT_SHELVES } from '../inbox'
import { freshId, idOf, line } from './common'
import { laterForm } from './texting'

const why = () => line(300).default('')

/** Putting a conversation back: from now on, or from a moment to come. */
export const putBackForm = object({ later: laterForm.nullable().default(null), why: why() })
export type PutBackForm = InferType<typeof putBackForm>

/** Handing it to a colleague; to nobody in particular, so that all who answer the line have it. */
export const assignForm = object({ colleagueId: idOf('colleague').nullable().default(null), why: why() })
export type AssignForm = InferType<typeof assignForm>

export const inboxTextsQuery = object({
  what: string().oneOf(TEXT_SHELVES).required(),
  /** The last text of the page above: when it was written, and its id. */
  beforeAt: number().integer().min(0).max(8.64e15).nullable().default(null),
  beforeId: idOf('message').nullable().default(null),
})
export type InboxTextsQuery = InferType<typeof inboxTextsQuery>

/** Several at once are all asked for, with commas between. */
const filters = () => string().default('').test('show', 'There is no such filter of the inbox.', value =>
  !value || value.split(',').every(one => (INBOX_FILTERS as readonly string[]).includes(one)))

export const inboxViewForm = object({
  /** Made by the browser: saving under the same id changes the view. */
  id: freshId().required(),
  name: line(60).required('Give the view a name.'),
  asked: object({
    show: filters(),
    line: idOf('line').nullable().default(null),
    module: string().oneOf(['', ...MODULES] as const).default(''),
    words: line(100).default(''),
  }).required(),
  /** With my team; else it is for me alone. */
  shared: boolean().default(false),
})
export type InboxViewForm = InferType<typeof inboxViewForm>

export const inboxQuery = object({
  show: filters(),
  lineId: idOf('line').nullable().default(null),
  module: string().oneOf(MODULES).nullable().default(null),
  words: line(100).default(''),
  /** Where the page above ends: when the newest text of a conversation was, and its id. */
  beforeAt: number().integer().min(0).max(8.64e15).nullable().default(null),
  beforeId: idOf('conversation').nullable().default(null),
})
export type InboxQuery = InferType<typeof inboxQuery>

export const noticesQuery = object({
  /** Only what came in after it, epoch milliseconds. */
  after: number().integer().min(0).max(8.64e15).default(0),
})
export type NoticesQuery = InferType<typeof noticesQuery>
