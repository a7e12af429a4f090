import { boolean, object, string } from 'yup'

export const signInForm = object({
  mail: string()
    .trim()
    .required('Type your mail address.')
    .email('This is not a mail address. It needs a name, an @ and a place.')
    .max(160),
  password: string().required('Type your password.').max(200),
})

/** Which keys work for somebody. */
export const keysForm = object({
  singleKeys: boolean().required(),
})
