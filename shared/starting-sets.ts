import type { Family } from '../core/call/family'
import type { Effect } from '../core/effects/effects'
import type { DispositionColour } from './calling'
import type { ModuleField } from './fields'
import { PERSON_MODULES, type Held, type PersonModule } from './modules'

/** A pipeline as it is laid: its stages by name, and which of them end it. */
export interface PipelineToLay { holds: Held, name: string, stages: string[], over?: string[] }

interface DispositionToLay { modules: readonly PersonModule[], name: string, family: Family, letter: string, colour: DispositionColour, effects: Effect[] }

/** What a new firm begins with. All of it can be changed in Set-up. */
export interface StartingSet {
  label: string
  /** What is in it, for whoever chooses. */
  about: string
  pipelines: PipelineToLay[]
  fields: ModuleField[]
  dispositions: DispositionToLay[]
}

export const STARTING_SET_KEYS = ['sales', 'recruiting', 'care'] as const
export type StartingSetKey = typeof STARTING_SET_KEYS[number]

/** What stands in stages in every firm; each set words some of it in its own way. */
const EVERYWHERE: Record<Held, PipelineToLay> = {
  lead: { holds: 'lead', name: 'Leads', stages: ['New', 'Talking', 'Offer', 'Won', 'Lost'], over: ['Won', 'Lost'] },
  candidate: { holds: 'candidate', name: 'Candidates', stages: ['New', 'Talking', 'Interview', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
  client: { holds: 'client', name: 'Clients', stages: ['Starting', 'Active', 'Paused', 'Gone'], over: ['Gone'] },
  deal: { holds: 'deal', name: 'Deals', stages: ['First talk', 'Offer', 'Agreed', 'Lost'], over: ['Agreed', 'Lost'] },
  applicant: { holds: 'applicant', name: 'Hiring', stages: ['Applied', 'Interview', 'Offer', 'Hired', 'Not now'], over: ['Hired', 'Not now'] },
  job: { holds: 'job', name: 'Jobs', stages: ['Open', 'Paused', 'Filled', 'Called off'], over: ['Filled', 'Called off'] },
  case: { holds: 'case', name: 'Cases', stages: ['Open', 'Looked into', 'Waiting', 'Settled'], over: ['Settled'] },
  appointment: { holds: 'appointment', name: 'Appointments', stages: ['Planned', 'Kept', 'Missed', 'Called off'], over: ['Kept', 'Missed', 'Called off'] },
  payment: { holds: 'payment', name: 'Payments', stages: ['Due', 'Paid', 'Written off'], over: ['Paid', 'Written off'] },
  agreement: { holds: 'agreement', name: 'Agreements', stages: ['Running', 'Renewed', 'Ended'], over: ['Renewed', 'Ended'] },
  handover: { holds: 'handover', name: 'Handovers', stages: ['Planned', 'Done', 'Called off'], over: ['Done', 'Called off'] },
}

/** How calls end everywhere. */
const CALLS: DispositionToLay[] = [
  { modules: PERSON_MODULES, name: 'Later', family: 'reached', letter: 'l', colour: 'waiting', effects: [{ kind: 'call-back', days: null, time: '10:00' }] },
  { modules: PERSON_MODULES, name: 'Do not call again', family: 'reached', letter: 'x', colour: 'wrong', effects: [{ kind: 'no-calls' }] },
  { modules: PERSON_MODULES, name: 'No answer', family: 'not-reached', letter: 'a', colour: 'calm', effects: [{ kind: 'call-back', days: 1, time: '14:00' }] },
  { modules: PERSON_MODULES, name: 'Message left', family: 'not-reached', letter: 'm', colour: 'calm', effects: [{ kind: 'call-back', days: 2, time: '10:00' }] },
  { modules: PERSON_MODULES, name: 'Wrong number', family: 'not-reached', letter: 'w', colour: 'wrong', effects: [{ kind: 'wrong-number' }] },
]

const withOwn = (own: PipelineToLay[]): PipelineToLay[] =>
  Object.values(EVERYWHERE).flatMap((one) => {
    const instead = own.filter(({ holds }) => holds === one.holds)
    return instead.length > 0 ? instead : [one]
  })

export const STARTING_SETS: Record<StartingSetKey, StartingSet> = {
  sales: {
    label: 'Sales',
    about: 'Leads from the first word to the offer, deals with what they are worth, and where a lead came from.',
    pipelines: withOwn([{ holds: 'deal', name: 'Deals', stages: ['First talk', 'Needs known', 'Offer', 'Agreed', 'Lost'], over: ['Agreed', 'Lost'] }]),
    fields: [
      { module: 'lead', key: 'came_by', label: 'Source', kind: 'choice', example: 'Website', options: ['Website', 'Somebody told them', 'We wrote first', 'Fair or event'] },
      { module: 'lead', key: 'budget', label: 'Budget', kind: 'money', example: '640', options: [] },
      { module: 'agreement', key: 'notice_by', label: 'Notice by', kind: 'date', example: '2027-02-28', options: [] },
    ],
    dispositions: [
      { modules: ['lead', 'client'], name: 'Wants an offer', family: 'reached', letter: 'o', colour: 'accent', effects: [{ kind: 'task', title: 'Write the offer', days: 0, time: '17:00' }, { kind: 'call-back', days: 3, time: '10:00' }] },
      { modules: ['lead'], name: 'Not interested', family: 'reached', letter: 'n', colour: 'plain', effects: [{ kind: 'add-tag', tag: 'not now' }] },
      ...CALLS,
    ],
  },
  recruiting: {
    label: 'Recruiting',
    about: 'Candidates and the jobs they are put forward for, clients who hire, and when somebody is free and for how many hours.',
    pipelines: withOwn([
      { holds: 'candidate', name: 'Candidates', stages: ['New', 'Spoken to', 'Put forward', 'Placed', 'Resting'], over: [] },
      { holds: 'applicant', name: 'Hiring', stages: ['Applied', 'First call', 'Interview', 'Offer', 'Placed', 'Not now'], over: ['Placed', 'Not now'] },
      { holds: 'client', name: 'Clients', stages: ['First talk', 'Hiring', 'Resting', 'Gone'], over: ['Gone'] },
    ]),
    fields: [
      { module: 'candidate', key: 'role_wanted', label: 'Wants to be', kind: 'text', example: 'mechanic', options: [] },
      { module: 'candidate', key: 'available_from', label: 'Free from', kind: 'date', example: '2026-12-14', options: [] },
      { module: 'candidate', key: 'hours_a_week', label: 'Hours a week', kind: 'number', example: '24', options: [] },
      { module: 'job', key: 'openings', label: 'Openings', kind: 'number', example: '2', options: [] },
      { module: 'job', key: 'pay', label: 'Pay an hour', kind: 'money', example: '24', options: [] },
      { module: 'job', key: 'starts', label: 'Starts', kind: 'date', example: '2027-01-11', options: [] },
    ],
    dispositions: [
      { modules: ['candidate'], name: 'Comes to an interview', family: 'reached', letter: 'i', colour: 'good', effects: [{ kind: 'task', title: 'Send when and where', days: 0, time: '17:00' }] },
      { modules: ['candidate'], name: 'Not looking', family: 'reached', letter: 'n', colour: 'plain', effects: [{ kind: 'add-tag', tag: 'not looking' }] },
      { modules: ['client'], name: 'Has a job open', family: 'reached', letter: 'j', colour: 'accent', effects: [{ kind: 'task', title: 'Write the job down', days: 0, time: '17:00' }] },
      ...CALLS,
    ],
  },
  care: {
    label: 'Client care',
    about: 'Clients from the first weeks to the next renewal, their cases, and when what they have agreed to ends.',
    pipelines: withOwn([
      { holds: 'client', name: 'Clients', stages: ['Starting', 'Settled in', 'Renewing', 'At risk', 'Gone'], over: ['Gone'] },
      { holds: 'deal', name: 'Renewals', stages: ['Coming up', 'Talked', 'Offered', 'Renewed', 'Gone'], over: ['Renewed', 'Gone'] },
      { holds: 'case', name: 'Cases', stages: ['New', 'Looked into', 'Waiting for them', 'Settled'], over: ['Settled'] },
    ]),
    fields: [
      { module: 'client', key: 'contract_ends', label: 'Contract ends', kind: 'date', example: '2027-03-31', options: [] },
      { module: 'client', key: 'next_check', label: 'Next check-in', kind: 'date', example: '2026-12-08', options: [] },
      { module: 'case', key: 'urgency', label: 'Urgency', kind: 'choice', example: 'This week', options: ['Today', 'This week', 'No hurry'] },
      { module: 'agreement', key: 'notice_by', label: 'Notice by', kind: 'date', example: '2027-02-28', options: [] },
    ],
    dispositions: [
      { modules: ['client'], name: 'All well', family: 'reached', letter: 's', colour: 'good', effects: [{ kind: 'call-back', days: 60, time: '10:00' }] },
      { modules: ['client'], name: 'Something is wrong', family: 'reached', letter: 'r', colour: 'accent', effects: [{ kind: 'task', title: 'Look into it', days: 0, time: '17:00' }] },
      ...CALLS,
    ],
  },
}
