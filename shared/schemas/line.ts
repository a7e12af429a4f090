import { array, object, string, type InferType } from 'yup'
import { NATIONAL_LANGUAGES } from '../../core/text/national'

export const lineForm = object({
  languages: array().of(string().oneOf(NATIONAL_LANGUAGES).required()).max(NATIONAL_LANGUAGES.length).required('Say whose letters the carrier knows.'),
})
export type LineForm = InferType<typeof lineForm>
