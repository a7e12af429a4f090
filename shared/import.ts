import type { DayOrder } from '../core/import/days'
import type { DuplicateBy, DuplicateRules } from '../core/import/fate'
import type { ImportTarget, Matching } from '../core/import/targets'
import type { ModuleField } from './fields'
import { isPersonModule, PERSON_MODULES, type Module } from './modules'

/** Files can be brought into these. */
export const IMPORT_MODULES = [...PERSON_MODULES, 'company'] as const satisfies readonly Module[]

/** Rows that are written at once: with one session everybody waits for a piece. */
export const PIECE_ROWS = 25
export const MOST_ROWS = 200_000
export const MOST_COLUMNS = 120

export interface ImportRules {
  matching: Matching
  country: string
  dayOrders: (DayOrder | null)[]
  duplicates: DuplicateRules
  /** Whose the new ones are, where the file does not say. */
  ownerId: string
}

export const IMPORT_STATES = ['loading', 'running', 'done', 'stopped', 'taking-back', 'taken-back'] as const
export type ImportState = typeof IMPORT_STATES[number]

/** What became of one row, short, for there are many; with the company that was made for it. */
export type Outcome
  = | { kind: 'new', id: string, company?: string, partly?: true }
    | { kind: 'joined', id: string, by: DuplicateBy, added: Added | null, company?: string, partly?: true }
    | { kind: 'left-out', id: string, by: DuplicateBy }
    | { kind: 'there-already' }
    | { kind: 'refused', reasons: string[] }

/** What a row that was joined to a record added to it, where nothing was before. */
export interface Added {
  columns: Record<string, string>
  fields: Record<string, unknown>
  tags: string[]
  phoneIds: string[]
  companyId?: string
}

export interface ImportProgress {
  id: string
  module: Module
  fileName: string
  state: ImportState
  total: number
  done: number
  made: number
  joined: number
  leftOut: number
  thereAlready: number
  refused: number
  /** Of those that were taken: rows of which a cell could not be read, and went into a note. */
  partly: number
  keptBack: number
  madeAt: number
}

/** What is found of rows before they are brought in. */
export interface LookUp {
  numbers: Record<string, { id: string, name: string }>
  mails: Record<string, { id: string, name: string }>
  names: Record<string, { id: string, name: string }>
  /** Of the rows asked about, how often something was made of each before. */
  made: number[]
  /** Names of companies that there are, as they were asked. */
  companies: string[]
  /** By what a row calls its owner: why they cannot be. */
  notOwners: Record<string, string>
}

const target = (key: string, label: string, kind: ImportTarget['kind'] = 'text', options?: string[]): ImportTarget => ({
  key,
  label,
  kind,
  ...(options && { options }),
})

/**
 * What columns of a file can become in a module.
 *
 * @param own the fields of all modules, built in and added
 * @param stages the names of those that the module has
 */
export function importTargets(module: Module, own: ModuleField[], stages: string[]): ImportTarget[] {
  return [
    ...(isPersonModule(module)
      ? [
          target('first-name', 'First name'),
          target('last-name', 'Last name'),
          target('name', 'Whole name'),
          target('company', 'Company'),
          target('title', 'Role'),
        ]
      : [target('name', 'Name')]),
    target('phone', 'Number', 'number-of-phone'),
    target('mail', 'Mail address', 'mail'),
    target('street', 'Street'),
    target('city', 'City'),
    target('region', 'State or province'),
    target('postcode', 'Postcode'),
    target('country', 'Country', 'country'),
    ...(stages.length > 0 ? [target('stage', 'Stage', 'choice', stages)] : []),
    target('owner', 'Owner', 'colleague'),
    target('tags', 'Tags', 'tags'),
    target('opted-out', 'Opted out of texts', 'opted-out'),
    target('note', 'Note', 'note'),
    ...own.filter(field => field.module === module).map(({ key, label, kind, options }) => target(`own.${key}`, label, kind, options)),
  ]
}
