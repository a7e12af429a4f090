import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import { KNOCK_KINDS } from '../../core/knock/kinds'
import { idOf } from './common'

export const signInForm = object({
  mail: string()
    .trim()
    .required('Type your mail address.')
    .email('This is not a mail address. It needs a name, an @ and a place.')
    .max(160),
  password: string().required('Type your password.').max(200),
  /** Of an app, or a recovery code, where one is asked for. */
  code: string().trim().max(20, 'At most 20 characters.').default(''),
})

export type SignInForm = InferType<typeof signInForm>

export const codeForm = object({ code: string().trim().required('Type the code that the app shows.').max(20, 'At most 20 characters.') })
export const passwordForm = object({ password: string().required('Type your password.').max(200, 'At most 200 characters.') })

/** How somebody is told of what comes in. */
export const toldForm = object({
  chimes: boolean().required(),
  notifies: boolean().required(),
  /** Of these kinds nothing knocks at them. */
  knocksOff: array(string().oneOf(KNOCK_KINDS).required()).max(KNOCK_KINDS.length).required(),
  /** At whom it knocks when they do not come in time. */
  standInId: idOf('colleague').nullable().defined(),
  /** Who waits longer than so many minutes is mailed; null: never. */
  mailMinutes: number().integer().min(1, 'Choose a minute at least.').max(24 * 60, 'Choose a day at most.').nullable().defined(),
})
export type ToldForm = InferType<typeof toldForm>

/** How somebody reads times and days; null is as their browser does. */
export const formatForm = object({
  hours: mixed<12 | 24>().oneOf([12, 24], 'Choose 12 or 24 hours.').nullable().defined(),
  dayFirst: boolean().nullable().defined(),
})

/** Which keys work for somebody. */
export const keysForm = object({
  singleKeys: boolean().required(),
})
