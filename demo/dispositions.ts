import type { Family } from '../core/call/family'
import type { Effect } from '../core/effects/effects'
import type { DispositionColour } from '../shared/calling'
import type { PersonModule } from '../shared/modules'
import type { Pipeline } from '../shared/pipelines'
import { stageNamed } from './pipelines'

/** An effect of the demo names its template or its stage; the id is put in when it is laid. */
type DemoEffect = Exclude<Effect, { kind: 'text' | 'stage' }> | { kind: 'text', template: string } | { kind: 'stage', stage: string }
interface DemoDisposition { modules: PersonModule[], name: string, family: Family, letter: string, colour: DispositionColour, effects: DemoEffect[] }

const EVERYBODY: PersonModule[] = ['lead', 'client', 'candidate']

/** How calls of Pannier & Post end, and what that sets off. */
export const DISPOSITIONS: DemoDisposition[] = [
  { modules: ['lead'], name: 'Wants a trial week', family: 'reached', letter: 't', colour: 'good', effects: [{ kind: 'text', template: 'Good that we spoke' }, { kind: 'stage', stage: 'Trial' }, { kind: 'task', title: 'Plan the trial week', days: 1, time: '09:00' }] },
  { modules: ['client'], name: 'Visit wanted', family: 'reached', letter: 'v', colour: 'good', effects: [{ kind: 'text', template: 'Good that we spoke' }, { kind: 'add-tag', tag: 'visit wanted' }, { kind: 'task', title: 'Send a mechanic', days: 1, time: '08:00' }] },
  { modules: ['candidate'], name: 'Comes to a trial shift', family: 'reached', letter: 't', colour: 'good', effects: [{ kind: 'text', template: 'Trial shift, when and where' }, { kind: 'stage', stage: 'Trial shift' }] },
  { modules: ['lead', 'client'], name: 'Wants an offer', family: 'reached', letter: 'o', colour: 'accent', effects: [{ kind: 'text', template: 'Your offer is coming' }, { kind: 'task', title: 'Write the offer', days: 0, time: '17:00' }, { kind: 'call-back', days: 3, time: '10:00' }] },
  { modules: ['client'], name: 'All well', family: 'reached', letter: 's', colour: 'good', effects: [{ kind: 'call-back', days: 60, time: '10:00' }] },
  { modules: EVERYBODY, name: 'Later', family: 'reached', letter: 'l', colour: 'waiting', effects: [{ kind: 'call-back', days: null, time: '10:00' }] },
  { modules: ['lead', 'candidate'], name: 'Not interested', family: 'reached', letter: 'n', colour: 'plain', effects: [{ kind: 'add-tag', tag: 'not now' }] },
  { modules: EVERYBODY, name: 'Do not call again', family: 'reached', letter: 'x', colour: 'wrong', effects: [{ kind: 'no-calls' }] },
  { modules: EVERYBODY, name: 'No answer', family: 'not-reached', letter: 'a', colour: 'calm', effects: [{ kind: 'text', template: 'Sorry I missed you' }, { kind: 'call-back', days: 1, time: '14:00' }] },
  { modules: EVERYBODY, name: 'Message left', family: 'not-reached', letter: 'm', colour: 'calm', effects: [{ kind: 'call-back', days: 2, time: '10:00' }] },
  { modules: EVERYBODY, name: 'Wrong number', family: 'not-reached', letter: 'w', colour: 'wrong', effects: [{ kind: 'wrong-number' }] },
]

/** Rows for the table, by module, each in its order. */
export function dispositionRows(templateIds: Record<string, string>, pipelines: Record<string, Pipeline>, newId: () => string) {
  const laid = (effect: DemoEffect, module: PersonModule): Effect => {
    if (effect.kind === 'text') return { kind: 'text', templateId: templateIds[effect.template]! }
    if (effect.kind === 'stage') return { kind: 'stage', stageId: stageNamed(pipelines[module]!, effect.stage) }
    return effect
  }
  return DISPOSITIONS.flatMap(({ modules, effects, ...one }, position) => modules.map(module => ({
    ...one, id: newId(), module, position,
    effects: effects.map(effect => laid(effect, module)),
  })))
}
