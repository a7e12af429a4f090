import { boolean, mixed, object, string, type InferType } from 'yup'

export const signInForm = object({
  mail: string()
    .trim()
    .required('Type your mail address.')
    .email('This is not a mail address. It needs a name, an @ and a place.')
    .max(160),
  password: string().required('Type your password.').max(200),
})

/** How somebody is told of what comes in. */
export const toldForm = object({ chimes: boolean().required(), notifies: boolean().required() })
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
