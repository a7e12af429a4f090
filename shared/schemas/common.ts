import { number, object, string } from 'yup'
import { isDay } from '../../core/conditions/conditions'

/** What an id in a request can name. The server asks of each whether whoever names it may see it (server/identity/named). */
export const NAMED = [
  'record',
  'phone',
  'conversation',
  'message',
  'entry',
  'picture',
  'proposal',
  'call',
  'recording',
  'spoken',
  'round',
  'task',
  'knock',
  'template',
  'line',
  'view',
  'group',
  'inbox-view',
  'bulk-change',
  'bulk-text',
  'import',
  'disposition',
  'colleague',
  'team',
  'pipeline',
  'stage',
  'field',
  'job',
  'set-aside-event',
  'carrier',
  'sign-in',
  'invitation',
  'money-entry',
  'money-limit',
  'money-ask',
  'audit-entry',
  'closed-day',
  'registration',
  'paper-file',
] as const
export type Named = typeof NAMED[number]

declare module 'yup' {
  interface CustomSchemaMetadata {
    /** What an id names, or how to read it out of something else; null for one that is made up by whoever asks. */
    names?: Named | null | ((value: unknown) => { what: Named, id: string } | null)
  }
}

/** Yup's own check knows no version 7. An empty field names nothing. */
const uuid = () => string().transform((value: unknown) => value === '' ? undefined : value)
  .matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i, 'This is not an id. Reload the page and try again.')

/** An id of something that is there. */
export const idOf = (names: Named) => uuid().meta({ names })

/** An id that the browser makes, so that sending the same again makes nothing twice. */
export const freshId = () => uuid().meta({ names: null })

/** One of several ids of which the answer leaves out those that the asker may not see (any more): it fails for none of them. */
export const idIfSeen = () => uuid().meta({ names: null })

export const byId = (names: Named) => object({ id: idOf(names).required() })

/** A day of the calendar, `2026-12-03`. */
export const day = () =>
  string()
    .matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { message: 'Choose a day.', excludeEmptyString: true })
    .test('calendar', 'The calendar has no such day. Choose another one.', value => !value || isDay(value))

/** A line of text as people type it: trimmed, and never longer than anybody needs. */
export const line = (most: number) => string().trim().max(most, ({ max }) => `That is longer than ${max} characters. Shorten it.`)

/** The same, where a form sends an empty field as null. */
export const optionalLine = (most: number) => line(most).nullable().transform((value: unknown) => value === '' ? null : value).default(null)

export const page = () => number().integer().min(1).max(100_000).default(1)

const SHORTEST_PASSWORD = 12

export const mailAddress = () => string()
  .trim()
  .lowercase()
  .max(200)
  .email('This is not a mail address. It needs a name, an @ and a place.')

export const newPassword = () => string()
  .min(SHORTEST_PASSWORD, `At least ${SHORTEST_PASSWORD} characters: a few words are easier to remember than signs.`)
  .max(200)
  .required('Choose a password.')
