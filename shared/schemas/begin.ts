import { boolean, object, string, type InferType } from 'yup'
import { STARTING_SET_KEYS } from '../starting-sets'
import { line, mailAddress, newPassword } from './common'

/** The firm and its first admin. */
export const beginForm = object({
  /** Out of the address that the start has printed. */
  key: string().max(200).required('Open the address that the start of Plauder has printed.'),
  firm: line(80).required('Say what the firm is called.'),
  country: string()
    .matches(/^[A-Z]{2}$/, 'Choose a country.')
    .required('Choose a country.'),
  zone: string().max(60).required('Choose a time zone.'),
  name: line(80).required('Say who you are.'),
  mail: mailAddress()
    .required('Give the mail address with which you sign in.'),
  password: newPassword(),
  /** The stages, fields and ends of calls to begin with. */
  set: string().oneOf(STARTING_SET_KEYS, 'Choose what you do.').default('sales'),
  /** Whether a line of the practice carrier is made, to try everything with nobody outside. */
  practice: boolean().default(true),
})
export type BeginForm = InferType<typeof beginForm>

/** Whether nobody has begun yet, and what there is to choose from. */
export interface Beginning { open: boolean, practice: boolean, countries: string[] }
