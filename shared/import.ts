import type { DayOrder } from '../core/import/days'
import type { DuplicateBy, DuplicateRules } from '../core/import/fate'
import type { ImportTarget, Matching } from '../core/import/targets'
import type { ModuleField } from './fields'
import { CHOICE_OF_PIPELINE, hasNumbers, holdsPeople, isDatedModule, isPersonModule, type Module } from './modules'
import type { Pipeline, Stage } from './pipelines'

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
  aboutId?: string
  personIds?: string[]
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
  /** By what a row calls its owner, somebody on it, or what it hangs on: why they cannot be. */
  notOwners: Record<string, string>
  notPeople: Record<string, string>
  notMatters: Record<string, string>
}

const target = (key: string, label: string, kind: ImportTarget['kind'] = 'text', options?: string[]): ImportTarget => ({
  key,
  label,
  kind,
  ...(options && { options }),
})

const PERSON_TARGETS = [
  target('first-name', 'First name'),
  target('last-name', 'Last name'),
  target('name', 'Whole name'),
  target('company', 'Company'),
  target('title', 'Role'),
]

const ADDRESS_TARGETS = [
  target('street', 'Street'),
  target('city', 'City'),
  target('region', 'State or province'),
  target('postcode', 'Postcode'),
  target('country', 'Country', 'country'),
]

/** What a firm has laid out of a module: its own and built-in fields, its stages, and the pipelines it may choose. */
export interface LaidOut { own: ModuleField[], stages: Pick<Stage, 'name'>[], pipelines: Pick<Pipeline, 'name' | 'stages'>[] }

/** What columns of a file can become in a module. */
export function importTargets(module: Module, { own, stages, pipelines }: LaidOut): ImportTarget[] {
  // beside a pipeline of its own column, a stage goes by its own name too
  const stageNames = [...new Set([...stages, ...module === 'deal' ? pipelines.flatMap(one => one.stages) : []].map(({ name }) => name))]
  return [
    ...isPersonModule(module) ? PERSON_TARGETS : [target('name', 'Name')],
    ...hasNumbers(module) ? [target('phone', 'Number', 'number-of-phone')] : [],
    ...isPersonModule(module) || module === 'company' ? [target('mail', 'Mail address', 'mail')] : [],
    ...ADDRESS_TARGETS,
    ...isPersonModule(module) || module === 'company' ? [] : [target('company', 'Company')],
    ...holdsPeople(module) ? [target('people', 'People on it', 'people')] : [],
    ...isDatedModule(module) ? [target('about', 'Belongs to', 'matter')] : [],
    ...CHOICE_OF_PIPELINE[module] && pipelines.length > 1 ? [target('pipeline', 'Pipeline', 'choice', pipelines.map(({ name }) => name))] : [],
    ...stageNames.length > 0 ? [target('stage', 'Stage', 'choice', stageNames)] : [],
    target('owner', 'Owner', 'colleague'),
    target('tags', 'Tags', 'tags'),
    ...hasNumbers(module) ? [target('opted-out', 'Opted out of texts', 'opted-out')] : [],
    target('note', 'Note', 'note'),
    ...own.filter(field => field.module === module).map(({ key, label, kind, options }) => target(`own.${key}`, label, kind, options)),
  ]
}
