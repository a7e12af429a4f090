import { boolean, number, object, string, type InferType } from 'yup'

export const acceptTermsForm = object({ version: number().integer().min(1).required() })

export const termsForm = object({
  words: string().trim().max(20_000, 'That is longer than 20,000 characters. Shorten it: whoever texts is to read it.').required('Write the terms of use.'),
  /** The version that they were written after; null for the first. */
  after: number().integer().min(1).nullable().defined(),
})
export type TermsForm = InferType<typeof termsForm>

export const switchForm = object({ on: boolean().required() })
export type SwitchForm = InferType<typeof switchForm>
