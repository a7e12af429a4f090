import { v7 as uuid } from 'uuid'
import type { groupMember, peopleGroup } from '../server/db/schema'
import type { Staff } from './generate'
import type { Rows } from './rows'

type Group = Pick<typeof peopleGroup.$inferInsert, 'name' | 'module' | 'conditions'> & { of: string }

/** Groups by a rule that the colleagues have made. */
const BY_RULE: Group[] = [
  {
    of: 'odile', name: 'Bakeries with a trial ahead', module: 'lead',
    conditions: { match: 'all', of: [{ field: 'sector', test: 'contains', value: 'bakery' }, { field: 'own.trial_day', test: 'next-days', value: 21 }] },
  },
  {
    of: 'mika', name: 'Met at the market', module: 'lead',
    conditions: { match: 'all', of: [{ field: 'own.came_by', test: 'one-of', value: ['Market stall'] }] },
  },
]
const BY_HAND = { of: 'ada', name: 'Demonstration day, Halifax' }
const INVITED = 24

export interface GroupRows { groups: (typeof peopleGroup.$inferInsert)[], members: (typeof groupMember.$inferInsert)[] }

/** The groups, and in the one by hand leads and clients from Halifax. */
export function groupRows({ records }: Rows, { colleagues }: Staff, now: Date): GroupRows {
  const invited = { id: uuid(), name: BY_HAND.name, madeBy: colleagues[BY_HAND.of]!, madeAt: now }
  return {
    groups: [invited, ...BY_RULE.map(({ of, ...group }) => ({ ...group, id: uuid(), madeBy: colleagues[of]!, madeAt: now }))],
    members: records
      .filter(({ module, city }) => (module === 'lead' || module === 'client') && city === 'Halifax')
      .slice(0, INVITED)
      .map(({ id }) => ({ groupId: invited.id, recordId: id })),
  }
}
