import type { Effect, EffectKind, EffectOf, EffectState } from '~~/core/effects/effects'
import type { EffectDone } from '~~/shared/effects'
import { saidToReader } from './reader'

/** What came of an effect, after what it is. */
const CAME_OF_IT: Record<EffectState, (reason: string | null) => string> = {
  'done': () => '',
  'unchanged': reason => `: nothing to do. ${reason}`,
  'failed': reason => `: did not work. ${reason}`,
  'left-out': () => ': left out',
  'taken-back': () => ': taken back',
  'stays': reason => `: could not be taken back. ${reason}`,
}

export const sayEffectDone = ({ words, state, reason }: EffectDone): string => saidToReader(`${words}${CAME_OF_IT[state](reason)}`)

/** Each kind of effect where it is chosen, and how it begins there. */
export const EFFECT_CHOICES: { [K in EffectKind]: { label: string, fresh: EffectOf<K> } } = {
  'text': { label: 'Text from a template', fresh: { kind: 'text', templateId: '' } },
  'stage': { label: 'Move to a stage', fresh: { kind: 'stage', stageId: '' } },
  'add-tag': { label: 'Add a tag', fresh: { kind: 'add-tag', tag: '' } },
  'remove-tag': { label: 'Take a tag off', fresh: { kind: 'remove-tag', tag: '' } },
  'add-group': { label: 'Put into a group', fresh: { kind: 'add-group', groupId: '' } },
  'remove-group': { label: 'Take out of a group', fresh: { kind: 'remove-group', groupId: '' } },
  'field': { label: 'Set a field', fresh: { kind: 'field', field: '', value: null } },
  'task': { label: 'Make a task', fresh: { kind: 'task', title: '', days: 1, time: '09:00' } },
  'call-back': { label: 'Call back', fresh: { kind: 'call-back', days: 1, time: '10:00' } },
  'wrong-number': { label: 'Mark the number as somebody else’s', fresh: { kind: 'wrong-number' } },
  'no-calls': { label: 'Not to be called any more', fresh: { kind: 'no-calls' } },
}

export const freshEffect = (kind: EffectKind): Effect => ({ ...EFFECT_CHOICES[kind].fresh })
