import { array, boolean, number, object, string, type InferType } from 'yup'
import { readRef } from '../../core/message/ref'
import { MOST_PICTURES } from '../pictures'
import { freshId, idOf } from './common'

/**
 * What a person is asked before a text leaves, and may answer with "send it all the same": an open wish of theirs to get no
 * texts, and the same words that they have sent a moment ago.
 */
export const DOUBTS = ['wish', 'twice'] as const
export type Doubt = typeof DOUBTS[number]

/** When a text is to leave, by the clock of a place. */
export const laterForm = object({
  wallTime: string().matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'Choose a day and a time.').required('Choose a day and a time.'),
  zone: string().max(60).required(),
})
export type LaterForm = InferType<typeof laterForm>

const ref = string().test(
  'ref',
  'This is no reference of a text. Leave it out, and it gets one.',
  value => value == null || readRef(value).ok,
)

export const pictureIds = () =>
  array().of(idOf('picture').required()).max(MOST_PICTURES, `A text takes ${MOST_PICTURES} pictures at most.`).default([])

export const sendForm = object({
  /** Made by the browser: sending the same again gives the first result. */
  id: freshId().required(),
  lineId: idOf('line').required('Choose a line to text from.'),
  /** One of the two: a number of a record, or the conversation that is answered. */
  phoneId: idOf('phone').nullable().default(null),
  conversationId: idOf('conversation').nullable().default(null),
  /** The record from which it is written, where that is not the one that holds the number: a deal, say. */
  recordId: idOf('record').nullable().default(null),
  text: string().defined('Write the text first.').max(10_000, 'No carrier takes a text of this length.'),
  pictureIds: pictureIds(),
  templateId: idOf('template').nullable().default(null),
  templateVersion: number().integer().min(1).nullable().default(null),
  /** "Yes, at night": for this one text. */
  nightAllowed: boolean().default(false),
  /** "Send it anyway": for this one text. */
  anyway: array(string().oneOf(DOUBTS).required()).max(DOUBTS.length).default([]),
  /** Up to when the sender has seen the conversation, by the server's clock; left out, nobody asks what came since. */
  seenUntil: number().integer().min(0).max(8.64e15).nullable().default(null),
  /** Left out, it leaves now. */
  later: laterForm.nullable().default(null),
  /** The one that its draft had, which may stand in its words; left out, it gets one. */
  ref: ref.nullable().default(null),
})
export type SendForm = InferType<typeof sendForm>

/** What a draft is for stands in its key. */
const ofDraft = (key: unknown) => {
  const [kind, id] = String(key).split(' ')
  return id ? { what: kind === 'conversation' ? 'conversation' as const : 'record' as const, id } : null
}

export const draftForm = object({
  key: string().matches(/^(record|conversation|note) [0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/).meta({ names: ofDraft }).required(),
  text: string().defined().max(10_000, 'No carrier takes a text of this length.'),
  templateId: idOf('template').nullable().default(null),
  templateVersion: number().integer().min(1).nullable().default(null),
  ref: ref.required(),
  pictureIds: pictureIds(),
  /** When it was written, epoch milliseconds: of two windows the later one counts. */
  at: number().integer().min(0).max(8.64e15).required(),
})
export type DraftForm = InferType<typeof draftForm>

export const rescheduleForm = object({
  /** Null lets it leave at once. */
  later: laterForm.nullable().defined(),
  nightAllowed: boolean().default(false),
})

export const consentForm = object({
  /** Whether the number agrees from now on. */
  agrees: boolean().required(),
  /** To what. */
  covers: string().oneOf(['texts', 'calls'] as const).default('texts'),
  words: string().trim().max(500).default(''),
  proposalId: idOf('proposal').nullable().default(null),
})
export type ConsentForm = InferType<typeof consentForm>
