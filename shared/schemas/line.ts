import { array, boolean, number, object, string, type InferType } from 'yup'
import { isDay } from '../../core/conditions/conditions'
import { RING_SOUNDS } from '../calling'
import { LINE_STEPS } from '../../core/lines/life'
import { NATIONAL_LANGUAGES } from '../../core/text/national'
import { freshId, idOf, line, optionalLine } from './common'

const TIME = /^([01]\d|2[0-3]):[0-5]\d$|^24:00$/
const time = (message: string) => string().matches(TIME, message).required(message)

export const lineForm = object({
  carrier: line(60).required('Choose over which carrier its texts go.'),
  /** Over which line its texts leave while its carrier cannot be reached; none: they wait. */
  standInId: idOf('line').nullable().default(null),
  languages: array()
    .of(string().oneOf(NATIONAL_LANGUAGES).required())
    .max(NATIONAL_LANGUAGES.length)
    .required('Say whose letters the carrier knows.'),
  records: boolean().required(),
  ownerFirst: boolean().required(),
  /** Colleagues with whom it rings alone, one after the other, before it rings with all. */
  ringOrder: array().of(idOf('colleague').required()).max(20, 'At most 20 colleagues, ten seconds each.').default([]),
  /** Colleagues who get in turn what comes in and nobody has. */
  takeOrder: array().of(idOf('colleague').required()).max(50, 'At most 50 colleagues.').default([]),
  /** What a caller hears before the tone; none: no messages are taken. */
  greeting: optionalLine(500),
  /** What a caller hears while all who answer it talk; none: it rings on. */
  busyGreeting: optionalLine(500),
  ringSound: string().oneOf(RING_SOUNDS).default('quick'),
  ringSeconds: number()
    .typeError('Write a number of seconds.')
    .integer('Write whole seconds.')
    .min(5, 'Let it ring for five seconds at least.')
    .max(120, 'Nobody waits for longer than two minutes.')
    .required(),
  /** How many bulk texts leave over it in a minute. */
  textsAMinute: number()
    .typeError('Write a number of texts.')
    .integer('Write whole texts.')
    .min(1, 'At least one text a minute.')
    .max(6_000, 'No carrier takes more than 6,000 a minute from one number.')
    .default(60),
  /** And in a day; none: as many as go. */
  textsADay: number()
    .transform((value: unknown, given: unknown) => given === '' ? null : value)
    .typeError('Write a number of texts, or nothing.')
    .integer('Write whole texts.')
    .min(1, 'At least one text a day, or nothing.')
    .max(1_000_000, 'At most a million a day.')
    .nullable()
    .default(null),
  /** Outside of these a message is taken at once. */
  hours: object({
    opens: time('Write a time such as 08:00.'),
    closes: time('Write a time such as 18:00.').test(
      'later',
      'It closes before it opens. Write a later time.',
      (closes = '', { parent: { opens = '' } }: { parent: { opens?: string } }) =>
        !TIME.test(closes) || !TIME.test(opens) || closes > opens,
    ),
    days: array().of(number().integer().min(0).max(6).required()).min(1, 'Choose at least one day.').required(),
  })
    .nullable()
    .default(null),
})
export type LineForm = InferType<typeof lineForm>

/** What a carrier has to know of a number that another one has. */
export const portingForm = object({
  from: line(80).required('Say which carrier has it.'),
  account: line(60).required('Write the number of your account there. It stands on their bills.'),
  wishedDay: string().test('day', 'Write a day such as 2026-12-08, or none.', day => !day || isDay(day)).default(''),
})
export type PortingForm = InferType<typeof portingForm>

export const makeLineForm = object({
  id: freshId().required(),
  carrier: line(60).required('Choose over which carrier its texts go.'),
  number: string().trim().max(60).required('Choose or write the number.'),
  name: line(60).required('Give it a name, by which colleagues tell it from others.'),
  /** Whose it is: a team's or a colleague's. */
  teamId: idOf('team').nullable().default(null),
  colleagueId: idOf('colleague').nullable().default(null)
    .test('one', 'Choose a team or a colleague: whoever answers what comes in over it.', (value, { parent: { teamId } }) => (value === null) !== (teamId === null)),
  /** What goes over it shows on timelines only to those who answer it. */
  private: boolean().default(false),
  /** The number is not ours yet: it is taken at the carrier, and paid for from then on. */
  takes: boolean().default(false),
  /** Another carrier has it: it is brought over. */
  brings: portingForm.nullable().default(null),
})
export const stepForm = object({ step: string().oneOf(LINE_STEPS, 'There is no such step.').required('Say which step to take.') })

export const offersQuery = object({
  carrier: line(60).required('Choose a carrier.'),
  country: string().matches(/^([A-Z]{2})?$/, 'Choose a country from the list.').default(''),
  place: string().trim().max(60, 'At most 60 characters of a place.').default(''),
  digits: string().trim().max(20, 'At most 20 digits.').matches(/^[\d\s()+.-]*$/, 'Write digits that are to be in it.').default(''),
})
export type OffersQuery = InferType<typeof offersQuery>

export type MakeLineForm = InferType<typeof makeLineForm>
