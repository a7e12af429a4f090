import type { Hole } from '../core/template/fill'
import type { TemplateProblem } from '../core/template/parse'
import type { PersonModule } from './modules'

export interface TemplateDetail {
  id: string
  name: string
  modules: PersonModule[]
  body: string
  version: number
  owner: string
  ownerId: string
  changedAt: number
  mayEdit: boolean
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
  version: number
  text: string | null
  /** What is missing, in words. */
  missing: string[]
}
