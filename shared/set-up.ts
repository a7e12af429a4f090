import type { FieldKind } from '../core/template/fields'
import type { LineForm } from './schemas/line'

/** A field that the firm has added to a module, as Set-up shows it. */
export interface OwnField { id: string, key: string, label: string, kind: FieldKind, example: string, options: string[], retired: boolean }

/** A pipeline with how many stand in each stage: deals themselves, or the candidates of jobs. */
export interface OwnPipeline { id: string, name: string, stages: { name: string, over: boolean, count: number }[], records: number }

/** A carrier over which a line's texts can go. */
export interface CarrierChoice { name: string, title: string }

/** A number of ours as Set-up shows it: with how it rings, and whose letters its carrier knows. */
export interface SetUpLine extends LineForm {
  id: string
  name: string
  e164: string
  active: boolean
  private: boolean
  /** Who answers it, by name: one colleague or a team. */
  colleague: string | null
  team: string | null
}
