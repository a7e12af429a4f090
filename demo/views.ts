import { isGroup, type Conditions } from '../core/conditions/conditions'
import type { Pipeline } from '../shared/pipelines'
import { stageNamed } from './pipelines'
import type { view } from '../server/db/schema'
import type { Staff } from './generate'
import { v7 as uuid } from 'uuid'

type View = Omit<typeof view.$inferInsert, 'id' | 'ownerId' | 'teamId' | 'madeAt'> & { of: string, shared: boolean }

/** Lists that the colleagues have kept. */
const VIEWS: View[] = [
  {
    of: 'odile', shared: true, module: 'lead', name: 'Gone quiet', sort: 'last-contact', direction: 'up',
    columns: ['name', 'company', 'stage', 'phone', 'owner', 'last-contact'],
    conditions: { match: 'all', of: [{ field: 'stage', test: 'one-of', value: ['Talking', 'Trial', 'Offer'] }, { field: 'last-contact', test: 'not-for-days', value: 30 }, { field: 'opted-out', test: 'no' }] },
  },
  {
    of: 'ada', shared: false, module: 'lead', name: 'Trials ahead', sort: 'own.trial_day', direction: 'up',
    columns: ['name', 'company', 'city', 'own.trial_day', 'own.bikes', 'phone'],
    conditions: { match: 'all', of: [{ field: 'own.trial_day', test: 'next-days', value: 21 }] },
  },
  {
    of: 'odile', shared: true, module: 'client', name: 'Leases that end', sort: 'own.lease_end', direction: 'up',
    columns: ['name', 'company', 'stage', 'own.lease_end', 'own.monthly', 'phone', 'owner'],
    conditions: { match: 'all', of: [{ field: 'own.lease_end', test: 'next-days', value: 45 }] },
  },
  {
    of: 'ada', shared: true, module: 'appointment', name: 'Coming up', sort: 'own.day', direction: 'up',
    columns: ['name', 'own.day', 'own.time', 'people', 'company', 'own.place', 'owner'],
    conditions: { match: 'all', of: [{ field: 'over', test: 'no' }] },
  },
  {
    of: 'odile', shared: true, module: 'payment', name: 'Due and not paid', sort: 'own.day', direction: 'up',
    columns: ['name', 'company', 'people', 'own.day', 'own.amount', 'owner'],
    conditions: { match: 'all', of: [{ field: 'stage', test: 'one-of', value: ['Due'] }, { field: 'own.day', test: 'older-than-days', value: 1 }] },
  },
]

export function viewRows({ colleagues, teams, pipelines }: Staff, now: Date): (typeof view.$inferInsert)[] {
  return VIEWS.map(({ of, shared, ...view }) => ({ ...view, conditions: withStageIds(view.conditions, pipelines[view.module]), id: uuid(), ownerId: colleagues[of]!, teamId: shared ? teams.sales : null, madeAt: now }))
}

/** Views of the demo name their stages; the ids are put in when they are laid. */
function withStageIds({ match, of }: Conditions, pipeline: Pipeline | undefined): Conditions {
  return { match, of: of.map((one) => {
    if (isGroup(one)) return withStageIds(one, pipeline)
    return one.field === 'stage' && Array.isArray(one.value) ? { ...one, value: one.value.map(name => stageNamed(pipeline!, name)) } : one
  }) }
}
