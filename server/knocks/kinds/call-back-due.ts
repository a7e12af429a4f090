import { colleagueAtWork } from '../../identity/sign-in'
import { callBacksDue } from '../../tasks/due'
import type { KnockSource } from '../source'

/** Somebody was promised to be called back now. */
export const callBackDue: KnockSource = {
  async due(_rules, now) {
    const due = []
    for (const { id, title, dueAt, colleagueId } of await callBacksDue(now)) {
      const whose = await colleagueAtWork(colleagueId)
      if (!whose) continue
      due.push({
        about: { taskId: id },
        once: `call-back-due ${id} ${dueAt}`,
        words: title,
        at: new Date(dueAt),
        step: 'owner' as const,
        whom: [whose],
      })
    }
    return due
  },
}
