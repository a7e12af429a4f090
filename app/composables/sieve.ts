import type { Direction, Group } from '~~/core/timeline/groups'

/** To what a reader has narrowed a timeline: nothing, until they say so. */
export interface SieveForm {
  groups: Group[]
  from: Direction | ''
  colleagueId: string
  lineId: string
  since: string
  until: string
  words: string
}

export const WHOLE: SieveForm = { groups: [], from: '', colleagueId: '', lineId: '', since: '', until: '', words: '' }

/** What of it goes into a request: only what narrows. */
export const asQuery = (form: SieveForm): Record<string, unknown> =>
  Object.fromEntries(Object.entries(form).filter(([, value]) => value.length > 0))

export const narrows = (form: SieveForm): boolean => Object.keys(asQuery(form)).length > 0
