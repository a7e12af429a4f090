import { array, number, object, string, type InferType } from 'yup'
import { PERSON_MODULES } from '../modules'
import { line, uuid } from './common'

export const templateForm = object({
  name: line(80).required('Give it a name by which people find it.'),
  modules: array(string().oneOf(PERSON_MODULES).required()).min(1, 'Choose at least one module.').required(),
  body: string().required('Write the text of the template.').max(5_000, 'A template holds 5,000 characters.'),
})
export type TemplateForm = InferType<typeof templateForm>

export const makeTemplate = templateForm.shape({ id: uuid().required() })
export const editTemplate = templateForm.shape({ version: number().integer().min(1).required() })
export const tryTemplate = object({
  body: string().defined().max(5_000),
  modules: array(string().oneOf(PERSON_MODULES).required()).required(),
  recordId: uuid().nullable().default(null),
})
