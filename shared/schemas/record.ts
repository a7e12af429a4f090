import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import { ALLOWED_HOURS } from '../../core/hours/reachable'
import { markHour } from '../../core/hours/say'
import { readCountry } from '../../core/places/countries'
import { MODULES } from '../modules'
import { byId, freshId, idOf, line, optionalLine, page } from './common'

export const recordQuery = object({
  module: string().oneOf(MODULES).required(),
  /** The key of a column. */
  sort: line(80).default('last-contact'),
  direction: string().oneOf(['up', 'down'] as const).default('down'),
  words: line(100).default(''),
  /** Conditions as JSON; read against the columns of the module. */
  where: string().max(8_000, 'These are more conditions than a list takes.').default(''),
  page: page(),
})
export type RecordQuery = InferType<typeof recordQuery>

/** A page of a list, with the groups that each is in where these are shown: they take longer. */
export const recordPageQuery = recordQuery.shape({ groups: boolean().default(false) })

/** A list whole, without a page of it. */
export const listQuery = recordQuery.omit(['page'])

export const phoneForm = object({
  id: idOf('phone').nullable().default(null),
  label: line(30).default('mobile'),
  /** As typed. What cannot be a number is kept all the same. */
  typed: line(60).required('Type the number, or take this line away.'),
})

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Tags that a record holds at most. */
export const MOST_TAGS = 20

const MAIL_MESSAGE = 'This is not a mail address. It needs a name, an @ and a place.'

/** A wish is within the hours in which anybody may be reached: it narrows them. */
const wishedHour = () => number().integer()
  .min(ALLOWED_HOURS.from, ({ min }) => `Nobody is reached before ${markHour(min)}. Choose a later hour.`)
  .max(ALLOWED_HOURS.to, ({ max }) => `Nobody is reached after ${markHour(max)}. Choose an earlier hour.`)
  .nullable()
  .transform((value: unknown, given: unknown) => given === '' || given === null ? null : value)
  .default(null)

/** What one fills in to make or change a record of any module. */
export const recordForm = object({
  firstName: optionalLine(80),
  lastName: optionalLine(80),
  /** A company's name; a person's is made of the two above. */
  name: optionalLine(160),
  title: optionalLine(80),
  /** Whose it is; mine, if left out. */
  ownerId: idOf('colleague').nullable().default(null),
  companyId: idOf('record').nullable().default(null),
  /** Of a deal or a job. */
  pipelineId: idOf('pipeline').nullable().default(null),
  /** The deal, job or case on which something with a day hangs. */
  aboutId: idOf('record').nullable().default(null),
  /** The first there is, if left out. */
  stageId: idOf('stage').nullable().default(null),
  street: optionalLine(120),
  city: optionalLine(80),
  region: optionalLine(40),
  postcode: optionalLine(20),
  /** In words or as two letters; kept as these (ISO 3166). */
  country: string()
    .trim()
    .nullable()
    .transform((value: unknown) => typeof value !== 'string' ? value : value === '' ? null : readCountry(value) ?? value)
    .test('country', '“${value}” is no country. Write it in English, such as Canada, or as two letters.', value =>
      !value || readCountry(value) !== null)
    .default(null),
  /** IANA name, where it is known better than the number and the address tell. */
  zone: optionalLine(60),
  /** Between which whole hours of their day they want to be reached; only both together. */
  wishFrom: wishedHour(),
  wishTo: wishedHour().test('after', 'Choose a later hour than the one they want to be reached from.', (to, { parent }) => {
    const from = (parent as { wishFrom: number | null }).wishFrom
    return (from ?? null) === null ? (to ?? null) === null : to != null && to > from!
  }),
  mail: string()
    .trim()
    .email(MAIL_MESSAGE)
    .max(160)
    .nullable()
    .transform((value: unknown) => (value === '' ? null : value))
    .default(null),
  phones: array(phoneForm).max(10, 'A record holds ten numbers at most.').default([]),
  tags: array(line(40).required())
    .max(MOST_TAGS, ({ max }) => `A record holds ${max} tags at most.`)
    .transform((tags: unknown) => (Array.isArray(tags) ? [...new Set(tags)] : tags))
    .default([]),
  fields: mixed<Record<string, unknown>>(isObject).default({}),
})
export type RecordForm = InferType<typeof recordForm>
export type PhoneForm = InferType<typeof phoneForm>

export const makeRecord = recordForm.shape({
  /** Made by the browser, so that sending the form twice makes one record. */
  id: freshId().required(),
  module: string().oneOf(MODULES).required(),
  /** Who is on it from the beginning. */
  personIds: array(idOf('record').required()).max(50, 'Put 50 people on it at most; more can be added afterwards.').default([]),
})
export type MakeRecord = InferType<typeof makeRecord>

export const editRecord = recordForm.shape({
  /** The version that was on screen. */
  version: number().integer().min(1).required(),
  /**
   * By the fields that were changed in the form, what stood there before: the others stay as they are by now. Left out, the
   * whole form is meant, and only for that version.
   */
  was: mixed<Record<string, unknown>>(isObject).nullable().default(null),
})
export type EditRecord = InferType<typeof editRecord>

/** What is being written down, while it is typed. */
export const alikeQuery = object({
  module: string().oneOf(MODULES).required(),
  /** Numbers as E.164, with commas between. */
  numbers: line(400).default(''),
  mail: line(160).default(''),
  name: line(160).default(''),
  city: line(80).default(''),
  /** The record itself, where it is there already. */
  except: idOf('record').nullable().default(null),
})
export type AlikeQuery = InferType<typeof alikeQuery>

/** A person on a record. */
export const personOn = byId('record').shape({ personId: idOf('record').required() })

/** Moving to another stage. */
export const moveForm = object({
  stageId: idOf('stage').required('Choose a stage.'),
  /** The stage that was on screen: if it is another one by now, nothing moves. */
  from: idOf('stage').nullable().default(null),
})
export type MoveForm = InferType<typeof moveForm>

export const noteForm = object({
  id: freshId().required(),
  words: string().trim().required('Write the note first.').max(10_000, 'A note holds 10,000 characters.'),
  /** The entry of this record on which it is a note. */
  about: idOf('entry').nullable().default(null),
})
export type NoteForm = InferType<typeof noteForm>
