import type { ConditionKind } from '../core/conditions/conditions'
import type { FieldKind } from '../core/template/fields'
import type { CustomField } from './fields'
import { isPersonModule, MODULE_FACTS, type Module } from './modules'

/** A column of a list: it can be shown, sorted by and asked about. */
export interface Column {
  key: string
  label: string
  kind: ConditionKind
  /** How its values are written, where the kind of condition does not tell. */
  shows: FieldKind | 'instant' | 'tags'
}

interface BuiltIn extends Column { of: 'all' | 'people' | 'staged' }

const column = (key: string, label: string, kind: ConditionKind = 'words', shows: Column['shows'] = 'text', of: BuiltIn['of'] = 'all'): BuiltIn => ({ key, label, kind, shows, of })

const BUILT_IN: BuiltIn[] = [
  column('name', 'Name'),
  column('company', 'Company', 'words', 'text', 'people'),
  column('stage', 'Stage', 'one', 'choice', 'staged'),
  column('city', 'City'),
  column('phone', 'Number', 'words', 'phone', 'people'),
  column('owner', 'Owner', 'one', 'choice'),
  column('last-contact', 'Last contact', 'instant', 'instant'),
  column('tags', 'Tags', 'many', 'tags'),
  column('title', 'Role', 'words', 'text', 'people'),
  column('mail', 'Mail address', 'words', 'mail'),
  column('street', 'Street'),
  column('postcode', 'Postcode'),
  column('region', 'State or province'),
  column('country', 'Country'),
  column('opted-out', 'Opted out', 'yes-no', 'yes-no', 'people'),
  column('made', 'Made', 'instant', 'instant'),
]

/** Shown until somebody picks others. */
export const FIRST_COLUMNS = ['name', 'company', 'stage', 'city', 'phone', 'owner', 'last-contact']

const KINDS: Record<FieldKind, ConditionKind> = { 'text': 'words', 'number': 'number', 'money': 'number', 'date': 'day', 'time': 'words', 'choice': 'one', 'yes-no': 'yes-no', 'phone': 'words', 'link': 'words', 'mail': 'words' }

/** The columns of a module: those that all have, and its own fields. */
export function columnsOf(module: Module, custom: CustomField[]): Column[] {
  const has = { all: true, people: isPersonModule(module), staged: MODULE_FACTS[module].stages.length > 0 }
  return [
    ...BUILT_IN.filter(({ of }) => has[of]).map(({ of: _of, ...shown }) => shown),
    ...custom.filter(field => field.module === module).map(field => ({ key: `own.${field.key}`, label: field.label, kind: KINDS[field.kind], shows: field.kind })),
  ]
}
