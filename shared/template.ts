import type { FillIn } from '../core/template/fill-ins'
import type { Hole } from '../core/template/fill'
import type { LengthTally } from '../core/template/length'
import type { TemplateProblem } from '../core/template/parse'
import type { Module, TextedModule } from './modules'

export const AUDIENCES = ['mine', 'team', 'all'] as const
export type Audience = typeof AUDIENCES[number]

export interface TemplateDetail {
  id: string
  name: string
  description: string
  folder: string
  modules: TextedModule[]
  body: string
  fillIns: FillIn[]
  audience: Audience
  team: { id: string, name: string } | null
  version: number
  owner: string
  ownerId: string
  changedAt: number
  mayEdit: boolean
  favourite: boolean
  /** How often I have sent it. */
  times: number
  usedBy: TemplateUse[]
}

/** A disposition that sends a template. */
export interface TemplateUse { name: string, module: TextedModule }

export interface RetiredTemplate { id: string, name: string, retiredAt: number }

export interface TemplateVersion { version: number, name: string, body: string, fillIns: FillIn[], at: number, by: string }

/** What a version of a template did. Answers and opt-outs are those within three days, of the texts whose three days are over. */
export interface VersionResult {
  version: number
  sent: number
  settled: number
  delivered: number
  waited: number
  answered: number
  optedOut: number
}

/** A template tried on a record: its text, or why there is none. */
export interface TemplateTrial {
  problems: TemplateProblem[]
  holes: (Hole & { label: string })[]
  text: string | null
  record: { id: string, name: string } | null
}

/** A template filled for a person, as the composer offers it. */
export interface FilledTemplate {
  id: string
  name: string
  description: string
  folder: string
  version: number
  favourite: boolean
  times: number
  /** What whoever sends it fills in; the text shows the examples until then. */
  fillIns: FillIn[]
  text: string | null
  /** What is missing, in words. */
  missing: string[]
}

/** How long a template became over some people: `next` to go on with, `total` of all of them, told at the start. */
export interface CountedLength { tally: LengthTally, total: number | null, next: string | null }

/** What a text to a person can be about, with a name to choose it by. */
export interface TextContext { id: string, module: Module, name: string, day: string | null, over: boolean }

export interface FilledTemplates { templates: FilledTemplate[], contexts: TextContext[] }
