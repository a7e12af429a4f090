import { announceNow } from '../live/notices'
import { read } from '../db/door'
import { line } from '../db/schema'
import { allCarriers } from './registry'

export interface Away {
  name: string
  title: string
  /** Null where nobody has ever reached it. */
  since: number | null
  why: string | null
}

/** Carriers that cannot be reached at the moment. */
export const carriersAway = (): Away[] => allCarriers().flatMap(({ name, title, state }) => {
  const now = state?.()
  return now?.is === 'away' ? [{ name, title, since: now.since || null, why: now.why }] : []
})

let known = ''

/** Tells whoever answers a line of them when carriers go away, and when they are back. Asked every so often. */
export async function tellOfAway(): Promise<void> {
  const names = carriersAway().map(({ name }) => name).sort().join(' ')
  if (names === known) return
  known = names
  const lines = await read(database => database.select({ ownerId: line.colleagueId, teamId: line.teamId }).from(line))
  if (lines.length > 0) announceNow({ kind: 'carriers' }, 'line.answer', lines)
}
