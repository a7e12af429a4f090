import type { Field, FieldKind } from '../core/template/fields'
import type { Module } from './modules'

const person = (path: string, label: string, example: string, kind: FieldKind = 'text'): Field => ({ path: `person.${path}`, group: 'person', label, kind, example })

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

/** A field that a firm has added to a module. */
export interface CustomField { module: Module, key: string, label: string, kind: FieldKind, example: string, options: string[] }

/** The catalogue of a module: what its templates may use. */
export function fieldsOf(module: Module, custom: CustomField[]): Field[] {
  const own = custom
    .filter(field => field.module === module)
    .map(field => ({ ...person(field.key, field.label, field.example, field.kind), ...(field.kind === 'choice' && { options: field.options }) }))
  return [...PERSON, ...own, ...COMPANY, ...SENDER, ...FIRM]
}
