import type { ConditionKind } from '../core/conditions/conditions'
import type { FieldKind } from '../core/template/fields'
import { DAY_FIELD, type ModuleField } from './fields'
import {
  CHOICE_OF_PIPELINE,
  hasNumbers,
  hasStages,
  holdsPeople,
  isDatedModule,
  isMatterModule,
  isPersonModule,
  type Module,
} from './modules'

/** A column of a list: it can be shown, sorted by and asked about. */
export interface Column {
  key: string
  label: string
  kind: ConditionKind
  /** How its values are written, where the kind of condition does not tell. */
  shows: FieldKind | 'instant' | 'tags'
}

/** Which modules have a column. */
const HAVE = {
  all: () => true,
  people: isPersonModule,
  staged: hasStages,
  piped: module => module in CHOICE_OF_PIPELINE,
  linked: module => module !== 'company',
  reached: hasNumbers,
  peopled: holdsPeople,
  dated: isDatedModule,
  placed: module => !isDatedModule(module),
} as const satisfies Record<string, (module: Module) => boolean>

interface BuiltIn extends Column { of: keyof typeof HAVE }

const column = (
  key: string,
  label: string,
  kind: ConditionKind = 'words',
  shows: Column['shows'] = 'text',
  of: BuiltIn['of'] = 'all',
): BuiltIn => ({ key, label, kind, shows, of })

const BUILT_IN: BuiltIn[] = [
  column('name', 'Name'),
  column('people', 'People', 'words', 'text', 'peopled'),
  column('company', 'Company', 'words', 'text', 'linked'),
  column('sector', 'Sector', 'words', 'text', 'people'),
  column('about', 'On', 'words', 'text', 'dated'),
  column('pipeline', 'Pipeline', 'one', 'choice', 'piped'),
  column('stage', 'Stage', 'one', 'choice', 'staged'),
  column('city', 'City', 'words', 'text', 'placed'),
  column('phone', 'Number', 'words', 'phone', 'reached'),
  column('owner', 'Owner', 'one', 'choice'),
  column('last-contact', 'Last contact', 'instant', 'instant'),
  column('tags', 'Tags', 'many', 'tags'),
  column('groups', 'Groups', 'many', 'tags', 'reached'),
  column('title', 'Role', 'words', 'text', 'people'),
  column('mail', 'Mail address', 'words', 'mail', 'placed'),
  column('street', 'Street', 'words', 'text', 'placed'),
  column('postcode', 'Postcode', 'words', 'text', 'placed'),
  column('region', 'State or province', 'words', 'text', 'placed'),
  column('country', 'Country', 'words', 'text', 'placed'),
  column('over', 'Over', 'yes-no', 'yes-no', 'peopled'),
  column('opted-out', 'Opted out', 'yes-no', 'yes-no', 'reached'),
  column('made', 'Made', 'instant', 'instant'),
]

const KINDS: Record<FieldKind, ConditionKind> = {
  'text': 'words',
  'number': 'number',
  'money': 'number',
  'date': 'day',
  'time': 'words',
  'choice': 'one',
  'yes-no': 'yes-no',
  'phone': 'words',
  'link': 'words',
  'mail': 'words',
}

/**
 * The columns of a module: those that all have, and its own fields.
 *
 * @param own the fields of all modules, built in and added
 */
export function columnsOf(module: Module, own: ModuleField[]): Column[] {
  return [
    ...BUILT_IN.filter(({ of }) => HAVE[of](module)).map(({ of: _of, ...shown }) => shown),
    ...own
      .filter(field => field.module === module)
      .map(field => ({ key: `own.${field.key}`, label: field.label, kind: KINDS[field.kind], shows: field.kind })),
  ]
}

/** How a list looks until somebody wants it otherwise. */
export interface FirstLook { columns: string[], sort: string, direction: 'up' | 'down' }

const NEWEST_CONTACT = { sort: 'last-contact', direction: 'down' } as const

export function firstLook(module: Module): FirstLook {
  if (isDatedModule(module))
    return { columns: ['name', `own.${DAY_FIELD}`, 'people', 'company', 'stage', 'owner'], sort: `own.${DAY_FIELD}`, direction: 'down' }
  if (module === 'deal')
    return { columns: ['name', 'company', 'pipeline', 'stage', 'own.value', 'own.expected', 'owner', 'last-contact'], ...NEWEST_CONTACT }
  if (isMatterModule(module)) return { columns: ['name', 'company', 'people', 'stage', 'city', 'owner', 'last-contact'], ...NEWEST_CONTACT }
  if (module === 'company') return { columns: ['name', 'city', 'phone', 'owner', 'last-contact'], ...NEWEST_CONTACT }
  return { columns: ['name', 'company', 'stage', 'city', 'phone', 'owner', 'last-contact'], ...NEWEST_CONTACT }
}
