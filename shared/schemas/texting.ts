import { boolean, number, object, string, type InferType } from 'yup'
import { uuid } from './common'

export const sendForm = object({
  /** Made by the browser: sending the same again gives the first result. */
  id: uuid().required(),
  lineId: uuid().required('Choose a line to text from.'),
  /** One of the two: a number of a record, or the conversation that is answered. */
  phoneId: uuid().nullable().default(null),
  conversationId: uuid().nullable().default(null),
  /** The record from which it is written, where that is not the one that holds the number: a deal, say. */
  recordId: uuid().nullable().default(null),
  text: string().required('Write the text first.').max(10_000, 'No carrier takes a text of this length.'),
  templateId: uuid().nullable().default(null),
  templateVersion: number().integer().min(1).nullable().default(null),
  /** "Yes, at night": for this one text. */
  nightAllowed: boolean().default(false),
})
export type SendForm = InferType<typeof sendForm>

export const consentForm = object({
  /** Whether the number agrees to texts from now on. */
  agrees: boolean().required(),
  words: string().trim().max(500).default(''),
  proposalId: uuid().nullable().default(null),
})
export type ConsentForm = InferType<typeof consentForm>
