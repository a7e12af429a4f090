import type { PipelineModule } from '../shared/modules'

/** How Pannier & Post sells, renews and hires. */
export const PIPELINES: { key: string, module: PipelineModule, name: string, stages: string[], over: string[] }[] = [
  { key: 'fleets', module: 'deal', name: 'New fleets', stages: ['First word', 'Test ride', 'Trial week', 'Offer', 'Signed', 'Lost'], over: ['Signed', 'Lost'] },
  { key: 'renewals', module: 'deal', name: 'Renewals', stages: ['Coming up', 'Talked', 'Offered', 'Renewed', 'Gone'], over: ['Renewed', 'Gone'] },
  { key: 'riders', module: 'job', name: 'Riders', stages: ['Applied', 'Called', 'Trial shift', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
  { key: 'mechanics', module: 'job', name: 'Mechanics', stages: ['Applied', 'Called', 'Workshop day', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
]
