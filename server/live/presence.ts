import type { Asker } from '~~/shared/permissions'
import type { Looking } from '~~/shared/presence'
import { hear, say } from './between'
import { announceNow } from './notices'

/** Browsers say so again every 20 s; who has not for this long is gone. */
const LASTS = 45_000

type State = 'looking' | 'writing' | 'gone'
interface Look { recordId: string, colleagueId: string, firstName: string, state: State, at: number }

/** What every process heard from all of them; one that has just begun knows everybody after 20 s. */
const seenByRecord = new Map<string, Map<string, Look>>()

hear('presence', (look: Look) => {
  const seen = seenByRecord.get(look.recordId) ?? new Map<string, Look>()
  if (look.state === 'gone') seen.delete(look.colleagueId)
  else seen.set(look.colleagueId, look)
  if (seen.size > 0) seenByRecord.set(look.recordId, seen)
  else seenByRecord.delete(look.recordId)
})

/** Somebody looks at a record, or writes there, or leaves the page. */
export function look(
  { id: colleagueId, firstName }: Asker & { firstName: string },
  recordId: string,
  belongs: { ownerId: string, teamId: string },
  state: State,
  now: Date,
): void {
  const before = seenByRecord.get(recordId)?.get(colleagueId)?.state ?? 'gone'
  say('presence', { recordId, colleagueId, firstName, state, at: now.getTime() } satisfies Look)
  if (before !== state) announceNow({ kind: 'presence', recordId }, 'record.see', [belongs])
}

/** Whether somebody has a record open, as far as is known. */
export function isLooking(colleagueId: string, recordId: string, now: Date): boolean {
  const seen = seenByRecord.get(recordId)?.get(colleagueId)
  return seen !== undefined && now.getTime() - seen.at < LASTS
}

/** Who else is at this record now. */
export function whoElse(asker: Asker, recordId: string, now: Date): Looking[] {
  return [...seenByRecord.get(recordId)?.values() ?? []]
    .filter(seen => seen.colleagueId !== asker.id && now.getTime() - seen.at < LASTS)
    .map(({ colleagueId, firstName, state }) => ({ colleagueId, firstName, writing: state === 'writing' }))
}
