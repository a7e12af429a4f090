import type { GroupHead } from '~~/shared/groups'
import { MODULE_FACTS } from '~~/shared/modules'

/** How people get into a group, as part of a sentence. */
export function sayWay({ way, rule }: Pick<GroupHead, 'way' | 'rule'>): string {
  const whom = rule ? MODULE_FACTS[rule.module].many.toLowerCase() : ''
  return way === 'hand' ? 'by hand' : way === 'rule' ? `${whom} by a rule` : `${whom} by a field`
}
