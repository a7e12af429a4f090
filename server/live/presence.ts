import type { Asker } from '~~/shared/permissions'
import type { Looking } from '~~/shared/presence'
import { announceNow } from './notices'

/** Browsers say so again every 20 s; who has not for this long is gone. */
const LASTS = 45_000

interface Seen { colleagueId: string, firstName: string, writing: boolean, at: number, belongs: { ownerId: string, teamId: string } }

const seenByRecord = new Map<string, Map<string, Seen>>()

/** Somebody looks at a record, or writes there; `null` when the page is left. */
export function look(asker: Asker & { firstName: string }, recordId: string, belongs: Seen['belongs'], state: 'looking' | 'writing' | 'gone', now: Date): void {
  const seen = seenByRecord.get(recordId) ?? new Map<string, Seen>()
  const before = seen.get(asker.id)
  if (state === 'gone') seen.delete(asker.id)
  else seen.set(asker.id, { colleagueId: asker.id, firstName: asker.firstName, writing: state === 'writing', at: now.getTime(), belongs })
  if (seen.size > 0) seenByRecord.set(recordId, seen)
  else seenByRecord.delete(recordId)
  const changed = (before === undefined) !== (state === 'gone') || before?.writing !== (state === 'writing')
  if (changed) announceNow({ kind: 'presence', recordId }, 'record.see', [belongs])
}

/** Who else is at this record now. */
export function whoElse(asker: Asker, recordId: string, now: Date): Looking[] {
  return [...seenByRecord.get(recordId)?.values() ?? []]
    .filter(seen => seen.colleagueId !== asker.id && now.getTime() - seen.at < LASTS)
    .map(({ colleagueId, firstName, writing }) => ({ colleagueId, firstName, writing }))
}
