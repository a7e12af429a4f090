import { v7 as uuid } from 'uuid'
import { dueIn, dueOn } from '~~/core/call/due'
import { sayEffect, type EffectOf } from '~~/core/effects/effects'
import { markMoment, markTime } from '~~/core/hours/say'
import { zoneRules } from '~~/core/hours/zones'
import { makeTask, withdrawTask, zoneOfRecord } from '../tasks/tasks'
import { Unfit, type EffectWork } from './effect'

interface Kept { taskId: string }

const CALL_BACK_TITLE = 'Call back'

type Doing = EffectOf<'task' | 'call-back'>

/** Something to do at a time: the fact that it needs is in which zone that time is meant. */
const doing: EffectWork<'task' | 'call-back', string, Kept> = {
  describe: async () => effect => sayEffect(effect, { due: sayDays(effect) }),

  facts: (_effects, { asker, record }) => zoneOfRecord(asker, record.id),

  preview(effect, zone, _occasion, now) {
    const due = effect.days === null ? null : dueIn(now.getTime(), effect.days, effect.time, zoneRules(zone)!)
    return {
      words: sayEffect(effect, { due: due ? markMoment(due) : undefined }),
      due: due && { wallTime: due.wallTime, zone: due.zone },
    }
  },

  async perform(effect, { day, time }, zone, { asker, record, because }, now) {
    const rules = zoneRules(zone)!
    const chosen = day ?? (effect.days === null ? null : dueIn(now.getTime(), effect.days, effect.time, rules).wallTime.slice(0, 10))
    if (!chosen) throw new Unfit({ day: 'Say on which day, or leave this out.' })
    const due = dueOn(chosen, time ?? effect.time, rules)
    const taskId = uuid()
    const title = effect.kind === 'task' ? effect.title : CALL_BACK_TITLE
    await makeTask(asker, { id: taskId, recordId: record.id, kind: effect.kind, title, due, callId: because.callId ?? null }, now)
    return { words: sayEffect(effect, { due: markMoment(due) }), state: 'done', kept: { taskId } }
  },

  async undo({ taskId }, { asker }, now) {
    return await withdrawTask(asker, taskId, now) ? null : 'It is done already.'
  },
}

export const task: EffectWork<'task', string, Kept> = doing
export const callBack: EffectWork<'call-back', string, Kept> = doing

/** "the next day at T10:00": as long as it is not about anybody. */
function sayDays({ days, time }: Doing): string | undefined {
  if (days === null) return undefined
  const when = days === 0 ? 'the same day' : days === 1 ? 'the next day' : `${days} days later`
  return `${when} at ${markTime(time)}`
}
