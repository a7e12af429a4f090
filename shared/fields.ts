import type { Field, FieldKind } from '../core/template/fields'
import { DATED_MODULES, hasStages, isPersonModule, MATTER_MODULES, MODULE_FACTS, type Module, type PersonModule } from './modules'

/** A field of one module, kept among its `fields`: one that Plauder knows, or one that a firm has added. */
export interface ModuleField { module: Module, key: string, label: string, kind: FieldKind, example: string, options: string[] }

/** Currencies in which most firms reckon (ISO 4217). */
export const CURRENCIES = ['USD', 'CAD', 'GBP', 'EUR', 'AUD', 'NZD', 'CHF']
const field = (module: Module, key: string, label: string, kind: FieldKind, example: string, options: string[] = []): ModuleField => ({
  module,
  key,
  label,
  kind,
  example,
  options,
})

/**
 * The fields without which a deal would be no deal, and an appointment none: Plauder sorts, sums and reminds by them, and
 * finds people by the sector of their company. What
 * else there is to say, a firm adds.
 */
const BUILT_IN: ModuleField[] = [
  field('company', 'sector', 'Sector', 'text', 'bakery'),
  field('deal', 'value', 'Value', 'money', '7680'),
  field('deal', 'currency', 'Currency', 'choice', 'USD', CURRENCIES),
  field('deal', 'expected', 'Expected by', 'date', '2026-12-18'),
  field('appointment', 'day', 'Day', 'date', '2026-12-03'),
  field('appointment', 'time', 'Time', 'time', '10:30'),
  field('appointment', 'place', 'Place', 'text', 'the bakery'),
  field('payment', 'day', 'Due', 'date', '2026-12-15'),
  field('payment', 'amount', 'Amount', 'money', '640'),
  field('payment', 'currency', 'Currency', 'choice', 'USD', CURRENCIES),
  field('agreement', 'day', 'Ends', 'date', '2027-03-31'),
  field('handover', 'day', 'Day', 'date', '2026-12-09'),
  field('handover', 'time', 'Time', 'time', '8:30'),
]

/** The day on which a dated thing is, ends or falls due, is kept under this key in all of their modules. */
export const DAY_FIELD = 'day'

export const builtInFields = (module: Module): ModuleField[] => BUILT_IN.filter(one => one.module === module)

/** The group under which templates name a record's own fields: a person's are `person.…`, a deal's `deal.…`. */
export const groupOf = (module: Module) => isPersonModule(module) ? 'person' : module

const person = (path: string, label: string, example: string, kind: FieldKind = 'text'): Field => ({
  path: `person.${path}`,
  group: 'person',
  label,
  kind,
  example,
})

/** What every person has. */
const PERSON: Field[] = [
  person('first_name', 'First name', 'Iris'),
  person('last_name', 'Last name', 'Holm'),
  person('name', 'Whole name', 'Iris Holm'),
  person('title', 'Role', 'owner'),
  person('city', 'City', 'Honolulu'),
  person('stage', 'Stage', 'Talking'),
  person('mail', 'Mail address', 'iris@holm.example', 'mail'),
]

/** What everything else has. */
const thing = (module: Exclude<Module, PersonModule>): Field[] => [
  { path: `${module}.name`, group: module, label: 'Name', kind: 'text', example: '' },
  { path: `${module}.city`, group: module, label: 'City', kind: 'text', example: 'Honolulu' },
  ...hasStages(module) ? [{ path: `${module}.stage`, group: module, label: 'Stage', kind: 'text' as const, example: '' }] : [],
]

const COMPANY: Field[] = [
  { path: 'company.name', group: 'company', label: 'Company', kind: 'text', example: 'Holm & Daughters Bakery' },
  { path: 'company.city', group: 'company', label: 'Company’s city', kind: 'text', example: 'Honolulu' },
]

const SENDER: Field[] = [
  { path: 'sender.first_name', group: 'sender', label: 'My first name', kind: 'text', example: 'Ada' },
  { path: 'sender.name', group: 'sender', label: 'My whole name', kind: 'text', example: 'Ada Lund' },
  { path: 'sender.title', group: 'sender', label: 'My title', kind: 'text', example: 'Sales' },
  { path: 'sender.mail', group: 'sender', label: 'My mail address', kind: 'mail', example: 'ada@pannier.example' },
  { path: 'sender.direct_line', group: 'sender', label: 'My direct line', kind: 'phone', example: '503 555 0118' },
]

const FIRM: Field[] = [{ path: 'firm.name', group: 'firm', label: 'Our firm', kind: 'text', example: 'Pannier & Post' }]

const MESSAGE: Field[] = [{ path: 'message.ref', group: 'message', label: 'Ref of this text', kind: 'text', example: '4K7P-2M9X' }]

/** A module's field as an entry of the catalogue. */
export const asField = ({ module, key, label, kind, example, options }: ModuleField): Field =>
  ({ path: `${groupOf(module)}.${key}`, group: groupOf(module), label, kind, example, ...(kind === 'choice' && { options }) })

/** Under which key a record keeps a field of its module. */
export const keyOf = ({ path }: Pick<Field, 'path'>): string => path.slice(path.indexOf('.') + 1)

/**
 * The catalogue of a module: what its templates may use.
 *
 * @param own the fields of all modules, built in and added
 */
export function fieldsOf(module: Module, own: ModuleField[]): Field[] {
  return [
    ...isPersonModule(module) ? PERSON : thing(module),
    ...own.filter(one => one.module === module).map(asField),
    ...module === 'company' ? [] : COMPANY,
    ...SENDER,
    ...FIRM,
  ]
}

/** What people are on, in the order in which templates offer it. */
export const CONTEXT_MODULES = [...MATTER_MODULES, ...DATED_MODULES]

/** What templates for a module may use: the text itself too, and of people also what they are on. */
export function templateFieldsOf(module: Module, own: ModuleField[]): Field[] {
  return [
    ...fieldsOf(module, own),
    ...(isPersonModule(module) ? CONTEXT_MODULES : []).flatMap(one =>
      [...thing(one), ...own.filter(field => field.module === one).map(asField)]),
    ...MESSAGE,
  ]
}

/** A field's name where others of the same name stand beside it: the value of a deal is “Deal: Value”. */
export function fullLabel({ group, label }: Pick<Field, 'group' | 'label'>): string {
  const module = CONTEXT_MODULES.find(one => one === group)
  return module ? `${MODULE_FACTS[module].one}: ${label}` : label
}
