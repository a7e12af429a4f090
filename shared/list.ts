import type { Conditions } from '../core/conditions/conditions'
import type { Column } from './columns'

export interface Choice { value: string, label: string }

/** A column with what one chooses from, where one does. */
export interface ListColumn extends Column { choices?: Choice[] }

export interface View {
  id: string
  name: string
  columns: string[]
  conditions: Conditions
  sort: string
  direction: 'up' | 'down'
  shared: boolean
  owner: string
  mayEdit: boolean
}
