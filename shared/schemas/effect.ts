import { array, boolean, mixed, number, object, string, type InferType, type ObjectSchema } from 'yup'
import type { Effect, EffectKind, EffectOf } from '../../core/effects/effects'
import { day, idOf, line } from './common'

export const MOST_EFFECTS = 12

const time = () => string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time such as 09:30.')
const days = () =>
  number().typeError('Write a number of days.').integer('Write whole days.').min(0, 'Not before the call.').max(730, 'Two years at most.')
const kind = <K extends EffectKind>(name: K) => string<K>().oneOf([name]).required()
const tag = () => line(40).required('Write the tag.')

const group = () => idOf('group').required('Choose a group.')

/** What each kind of effect needs. */
const EFFECTS: { [K in EffectKind]: ObjectSchema<EffectOf<K>> } = {
  'text': object({ kind: kind('text'), templateId: idOf('template').required('Choose a template.') }),
  'stage': object({ kind: kind('stage'), stageId: idOf('stage').required('Choose a stage.') }),
  'add-tag': object({ kind: kind('add-tag'), tag: tag() }),
  'remove-tag': object({ kind: kind('remove-tag'), tag: tag() }),
  'add-group': object({ kind: kind('add-group'), groupId: group() }),
  'remove-group': object({ kind: kind('remove-group'), groupId: group() }),
  'field': object({
    kind: kind('field'),
    field: line(60).required('Choose a field.'),
    value: mixed((value): value is string | number | boolean => ['string', 'number', 'boolean'].includes(typeof value))
      .nullable()
      .default(null),
  }),
  'task': object({
    kind: kind('task'),
    title: line(200).required('Say what is to be done.'),
    days: days().required('Say after how many days.'),
    time: time().required('Say at what time.'),
  }),
  'call-back': object({ kind: kind('call-back'), days: days().nullable().default(null), time: time().required('Say at what time.') }),
  'wrong-number': object({ kind: kind('wrong-number') }),
  'no-calls': object({ kind: kind('no-calls') }),
}

const isKind = (given: unknown): given is EffectKind => typeof given === 'string' && Object.hasOwn(EFFECTS, given)

/** The template that an effect sends, where it sends one. */
const templateOf = (effect: unknown) => {
  const { templateId } = effect as { templateId?: unknown }
  return typeof templateId === 'string' && idOf('template').isValidSync(templateId) ? { what: 'template' as const, id: templateId } : null
}

/** A list of effects, each by what its kind needs, with the place of what is wrong. */
export const effectList = () =>
  array()
    .max(MOST_EFFECTS, `${MOST_EFFECTS} effects at most.`)
    .of(
      mixed((value): value is object => typeof value === 'object' && value !== null)
        .meta({ names: templateOf })
        .required()
        .test('effect', (value, context) => {
          const { kind } = value as Partial<Effect>
          if (!isKind(kind)) return context.createError({ message: 'Choose what it does.' })
          try {
            EFFECTS[kind].validateSync(value)
            return true
          }
          catch (error) {
            const { path, message } = error as { path?: string, message: string }
            return context.createError({ path: [context.path, path].filter(Boolean).join('.'), message })
          }
        }),
    )
    .default([])

/** An effect with what its kind knows, and nothing else. */
export const readEffect = (given: unknown): Effect => EFFECTS[(given as Effect).kind].validateSync(given, { stripUnknown: true }) as Effect

/** What is said of one effect before it happens. */
export const effectChoice = object({
  position: number().integer().min(0).max(20).required(),
  leftOut: boolean().default(false),
  /** The text as it was changed by hand. */
  text: string().max(10_000, 'No carrier takes a text of this length.').nullable().default(null),
  answers: mixed(
    (value): value is Record<string, string> =>
      typeof value === 'object' && value !== null && Object.values(value).every(one => typeof one === 'string' && one.length <= 500),
  ).default({}),
  /** The day and the time of a task or a call-back. */
  day: day().nullable().default(null),
  time: time().nullable().default(null),
})
export type EffectChoice = InferType<typeof effectChoice>
