import type { FillIn } from '../core/template/fill-ins'
import type { Hole } from '../core/template/fill'
import type { TemplateProblem } from '../core/template/parse'
import type { Module, PersonModule } from './modules'

export type Audience = 'mine' | 'team' | 'all'

export interface TemplateDetail {
  id: string
  name: string
  description: string
  folder: string
  modules: PersonModule[]
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
}

export interface TemplateVersion { version: number, name: string, body: string, fillIns: FillIn[], at: number, by: string }

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

/** What a text to a person can be about, with a name to choose it by. */
export interface TextContext { id: string, module: Module, name: string, day: string | null, over: boolean }

export interface FilledTemplates { templates: FilledTemplate[], contexts: TextContext[] }
