import { array, number, object, string, type InferType } from 'yup'
import { MOST_SAMPLES } from '../../core/papers/papers'
import { COUNTRIES } from '../../core/places/countries'
import { freshId, idOf, line, mailAddress } from './common'

const words = (most: number) => string().trim().max(most, `At most ${most} characters.`).default('')

/** What is written of it so far: nothing of it has to be there before it is handed in. */
export const papersForm = object({
  /** The version that was changed; another one would be written over unseen. */
  after: number().integer().min(0).required(),
  firm: line(120).default(''),
  brand: line(120).default(''),
  number: line(60).default(''),
  address: words(300),
  country: string().oneOf(['', ...COUNTRIES], 'There is no such country. Choose one of the list.').default(''),
  website: line(200).default('')
    .test('address', 'Write an address such as https://pannier.example.', value => !value || (URL.canParse(value) && /^https?:/.test(value))),
  contact: line(120).default(''),
  mail: mailAddress().default(''),
  phone: line(40).default(''),
  about: words(2_000),
  agree: words(2_000),
  samples: array().of(string().trim().max(1_000, 'At most 1,000 characters each.').required()).max(MOST_SAMPLES, `At most ${MOST_SAMPLES} samples.`).default([])
    .test('once', 'Two samples are the same.', samples => new Set(samples).size === samples.length),
})
export type PapersForm = InferType<typeof papersForm>

const days = () => number().typeError('Write a number of days.').integer('Whole days.').min(0, 'Not less than none.').max(365, 'At most a year.').required('Write a number of days.')

export const handInForm = object({
  id: freshId().required(),
  carrier: line(60).required('Choose a carrier.'),
  country: string().oneOf(COUNTRIES, 'There is no such country. Choose one of the list.').required('Choose a country.'),
  leastDays: days(),
  mostDays: days().test('order', 'It is less than the least. Write a larger number.', (most, { parent }) => most >= (parent as { leastDays: number }).leastDays),
})
export type HandInForm = InferType<typeof handInForm>

export const registrationParams = object({ id: idOf('registration').required() })

/** What a carrier has said of papers that were handed in by hand. */
export const papersWordForm = object({
  kind: string().oneOf(['asked-back', 'accepted', 'refused'], 'Choose what it has said.').required('Choose what it has said.'),
  words: words(1_000)
    .test('why', `Write down what it asks or says, so that whoever mends it knows.`, (value, { parent }) => !!value || (parent as { kind: string }).kind === 'accepted'),
  ref: line(80).nullable().default(null),
})
export type PapersWordForm = InferType<typeof papersWordForm>

export const paperFileParams = object({ id: freshId().required() })
export const heldFileParams = object({ id: idOf('paper-file').required() })
export const paperFileQuery = object({ name: line(120).required('The file has no name.') })
