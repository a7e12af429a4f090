import { array, mixed, number, object, string, type InferType } from 'yup'
import { FILL_IN_KINDS } from '../../core/template/fill-ins'
import { TEXTED_MODULES } from '../modules'
import { freshId, idOf, line } from './common'

export const AUDIENCES = ['mine', 'team', 'all'] as const

const fillIn = object({
  key: string().matches(/^[a-z][a-z0-9_]{0,39}$/, 'Call it by small letters, digits and underscores.').required(),
  label: line(60).required('Say what is to be filled in.'),
  kind: string().oneOf(FILL_IN_KINDS).required(),
  example: line(80).default(''),
  options: array(line(60).required('Write the choice, or take it away.')).max(40, 'A choice has 40 options at most.').default([])
    .when('kind', { is: 'choice', then: options => options.min(2, 'Give at least two to choose from.') }),
})

export const fillIns = array(fillIn.required()).max(12, 'A template has twelve fill-ins at most.').default([])
  .test('different', 'Two fill-ins have the same name.', value => new Set(value?.map(({ key }) => key)).size === value?.length)

export const templateForm = object({
  name: line(80).required('Give it a name by which people find it.'),
  description: line(200).default(''),
  folder: line(60).default(''),
  modules: array(string().oneOf(TEXTED_MODULES).required()).min(1, 'Choose at least one module.').required(),
  body: string().required('Write the text of the template.').max(5_000, 'A template holds 5,000 characters.'),
  fillIns,
  audience: string().oneOf(AUDIENCES).default('mine'),
  /** Of one for a team. */
  teamId: idOf('team').nullable().default(null),
})
export type TemplateForm = InferType<typeof templateForm>

export const makeTemplate = templateForm.shape({ id: freshId().required() })
export type MakeTemplate = InferType<typeof makeTemplate>
export const editTemplate = templateForm.shape({ version: number().integer().min(1).required() })
export type EditTemplate = InferType<typeof editTemplate>

export const tryTemplate = object({
  body: string().defined().max(5_000),
  modules: array(string().oneOf(TEXTED_MODULES).required()).required(),
  fillIns,
  recordId: idOf('record').nullable().default(null),
})
export type TryTemplate = InferType<typeof tryTemplate>

export const lengthForm = object({
  body: string().required('Write the text of the template.').max(5_000),
  modules: array(string().oneOf(TEXTED_MODULES).required()).min(1, 'Choose at least one module.').required(),
  fillIns,
  /** The last person counted so far; null at the start. */
  after: idOf('record').nullable().default(null),
})
export type LengthForm = InferType<typeof lengthForm>

/** Of what the text is about, and the ref that it will have. */
const context = {
  aboutId: idOf('record').nullable().default(null),
  ref: string().max(8).nullable().default(null),
}
export const fillContext = object(context)
export type FillContext = InferType<typeof fillContext>

/** By the keys of the template's own fill-ins. */
const isAnswers = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)
export const fillOne = object({ ...context, answers: mixed<Record<string, unknown>>(isAnswers).default({}) })
