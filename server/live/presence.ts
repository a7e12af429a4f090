import type { Asker, Belongs, Permission } from '~~/shared/permissions'
import type { Looking, MeetingPlace } from '~~/shared/presence'
import { hear, say } from './between'
import { announceNow } from './notices'

/** Browsers say so again every 20 s; who has not for this long is gone. */
const LASTS = 45_000

type State = 'looking' | 'writing' | 'gone'
interface Look { place: MeetingPlace, colleagueId: string, firstName: string, state: State, at: number }

/** What every process heard from all of them; one that has just begun knows everybody after 20 s. */
const seenByPlace = new Map<string, Map<string, Look>>()
const keyOf = ({ of, id }: MeetingPlace) => `${of} ${id}`

hear('presence', (look: Look) => {
  const key = keyOf(look.place)
  const seen = seenByPlace.get(key) ?? new Map<string, Look>()
  if (look.state === 'gone') seen.delete(look.colleagueId)
  else seen.set(look.colleagueId, look)
  if (seen.size > 0) seenByPlace.set(key, seen)
  else seenByPlace.delete(key)
})

/** Who may know who is at a place. */
const MAY_KNOW: Record<MeetingPlace['of'], Permission> = { record: 'record.see', conversation: 'line.answer' }

/** Somebody looks at a record or a conversation, or writes there, or leaves it. */
export function look(
  { id: colleagueId, firstName }: Asker & { firstName: string },
  place: MeetingPlace,
  belongs: Belongs,
  state: State,
  now: Date,
): void {
  const before = seenByPlace.get(keyOf(place))?.get(colleagueId)?.state ?? 'gone'
  say('presence', { place, colleagueId, firstName, state, at: now.getTime() } satisfies Look)
  if (before !== state) announceNow({ kind: 'presence', place }, MAY_KNOW[place.of], [belongs])
}

/** Whether somebody has a record open, as far as is known. */
export function isLooking(colleagueId: string, recordId: string, now: Date): boolean {
  const seen = seenByPlace.get(keyOf({ of: 'record', id: recordId }))?.get(colleagueId)
  return seen !== undefined && now.getTime() - seen.at < LASTS
}

/** Who else is at this place now. */
export function whoElse(asker: Asker, place: MeetingPlace, now: Date): Looking[] {
  return [...seenByPlace.get(keyOf(place))?.values() ?? []]
    .filter(seen => seen.colleagueId !== asker.id && now.getTime() - seen.at < LASTS)
    .map(({ colleagueId, firstName, state }) => ({ colleagueId, firstName, writing: state === 'writing' }))
}
