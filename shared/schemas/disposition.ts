import { array, mixed, number, object, string, type InferType } from 'yup'
import type { Effect } from '../../core/call/effects'
import { DISPOSITION_COLOURS } from '../calling'
import { PERSON_MODULES } from '../modules'
import { freshId, idOf, line } from './common'

export const MOST_EFFECTS = 12

export const ofPersonModule = object({ module: string().oneOf(PERSON_MODULES).required() })

const time = () => string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time such as 09:30.').required('Say at what time.')
const days = () => number().typeError('Write a number of days.').integer('Write whole days.').min(0, 'Not before the call.').max(730, 'Two years at most.')

/** What each kind of effect needs. */
const EFFECTS = {
  'text': object({ kind: string().oneOf(['text'] as const).required(), templateId: idOf('template').required('Choose a template.') }),
  'stage': object({ kind: string().oneOf(['stage'] as const).required(), stage: line(40).required('Choose a stage.') }),
  'add-tag': object({ kind: string().oneOf(['add-tag'] as const).required(), tag: line(40).required('Write the tag.') }),
  'remove-tag': object({ kind: string().oneOf(['remove-tag'] as const).required(), tag: line(40).required('Write the tag.') }),
  'field': object({
    kind: string().oneOf(['field'] as const).required(), field: line(60).required('Choose a field.'),
    value: mixed((value): value is string | number | boolean => ['string', 'number', 'boolean'].includes(typeof value)).nullable().default(null),
  }),
  'task': object({ kind: string().oneOf(['task'] as const).required(), title: line(200).required('Say what is to be done.'), days: days().required('Say after how many days.'), time: time() }),
  'call-back': object({ kind: string().oneOf(['call-back'] as const).required(), days: days().nullable().default(null), time: time() }),
  'wrong-number': object({ kind: string().oneOf(['wrong-number'] as const).required() }),
  'no-calls': object({ kind: string().oneOf(['no-calls'] as const).required() }),
} as const

export const EFFECT_KINDS = Object.keys(EFFECTS) as Effect['kind'][]

/** The template that an effect sends, where it sends one. */
const templateOf = (effect: unknown) => {
  const { templateId } = effect as { templateId?: unknown }
  return typeof templateId === 'string' && idOf('template').isValidSync(templateId) ? { what: 'template' as const, id: templateId } : null
}

export const dispositionForm = object({
  id: freshId().required(),
  module: string().oneOf(PERSON_MODULES).required(),
  name: line(40).required('Give it a name.'),
  family: string().oneOf(['reached', 'not-reached'] as const).required(),
  colour: string().oneOf(DISPOSITION_COLOURS).default('mulberry'),
  letter: string().lowercase().matches(/^[a-z]$/, 'One letter, from A to Z.').required('Give it a letter.'),
  effects: array().max(MOST_EFFECTS, `${MOST_EFFECTS} effects at most.`)
    // each by what its kind needs, with the place of what is wrong
    .of(mixed((value): value is object => typeof value === 'object' && value !== null).meta({ names: templateOf }).required().test('effect', (value, context) => {
      const { kind } = value as Partial<Effect>
      if (!kind || !EFFECT_KINDS.includes(kind)) return context.createError({ message: 'Choose what it does.' })
      try {
        EFFECTS[kind].validateSync(value)
        return true
      }
      catch (error) {
        const { path, message } = error as { path?: string, message: string }
        return context.createError({ path: [context.path, path].filter(Boolean).join('.'), message })
      }
    })).default([]),
})
export type DispositionForm = InferType<typeof dispositionForm>

/** An effect with what its kind knows, and nothing else. */
export const readEffect = (given: unknown): Effect => EFFECTS[(given as Effect).kind].validateSync(given, { stripUnknown: true }) as Effect

export const dispositionOrderForm = object({ module: string().oneOf(PERSON_MODULES).required(), ids: array().of(idOf('disposition').required()).max(200).required() })
