import type { Pipeline } from '../shared/pipelines'
import type { PipelineToLay } from '../shared/starting-sets'

/** How Pannier & Post sells, renews and hires. */
export const PIPELINES: (PipelineToLay & { key: string })[] = [
  { key: 'fleets', holds: 'deal', name: 'New fleets', stages: ['First word', 'Test ride', 'Trial week', 'Offer', 'Signed', 'Lost'], over: ['Signed', 'Lost'] },
  { key: 'renewals', holds: 'deal', name: 'Renewals', stages: ['Coming up', 'Talked', 'Offered', 'Renewed', 'Gone'], over: ['Renewed', 'Gone'] },
  { key: 'riders', holds: 'applicant', name: 'Riders', stages: ['Applied', 'Called', 'Trial shift', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
  { key: 'mechanics', holds: 'applicant', name: 'Mechanics', stages: ['Applied', 'Called', 'Workshop day', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
  { key: 'lead', holds: 'lead', name: 'Leads', stages: ['New', 'Talking', 'Trial', 'Offer', 'Leased'] },
  { key: 'candidate', holds: 'candidate', name: 'Candidates', stages: ['Applied', 'Talking', 'Trial shift', 'Offer', 'Hired'] },
  { key: 'client', holds: 'client', name: 'Clients', stages: ['Starting', 'Riding', 'Renewing', 'Paused'] },
  { key: 'job', holds: 'job', name: 'Jobs', stages: ['Open', 'Paused', 'Filled', 'Called off'], over: ['Filled', 'Called off'] },
  { key: 'case', holds: 'case', name: 'Cases', stages: ['Open', 'Looked into', 'Waiting', 'Settled'], over: ['Settled'] },
  { key: 'appointment', holds: 'appointment', name: 'Appointments', stages: ['Planned', 'Kept', 'Missed', 'Called off'], over: ['Kept', 'Missed', 'Called off'] },
  { key: 'payment', holds: 'payment', name: 'Payments', stages: ['Due', 'Paid', 'Written off'], over: ['Paid', 'Written off'] },
  { key: 'agreement', holds: 'agreement', name: 'Agreements', stages: ['Running', 'Renewed', 'Ended'], over: ['Renewed', 'Ended'] },
  { key: 'handover', holds: 'handover', name: 'Handovers', stages: ['Planned', 'Done', 'Called off'], over: ['Done', 'Called off'] },
]

/** The id of a stage by its name. */
export function stageNamed({ name: of, stages }: Pipeline, name: string): string {
  const found = stages.find(one => one.name === name)
  if (!found) throw new Error(`${of} have no stage “${name}”.`)
  return found.id
}
