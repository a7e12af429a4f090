import type { Notice } from '~~/shared/live'
import type { TimelineEntry } from '~~/shared/timeline'
import { log } from '../log/log'

/** Entries of a record that somebody may see, as they are now. */
export type ReadEntries = (recordId: string, ids: string[]) => Promise<TimelineEntry[]>

/** As many go together as a browser would fetch at once. */
const MOST = 50

/**
 * Sends an entry along with the notice of it to whoever has its record open: they need not come and fetch it. What
 * happens while entries are read goes with the next reading, so that nothing older is ever sent after something newer.
 *
 * @param isOpen whether they look at a record
 * @param push one notice to them; without its entry where that cannot be read, so that the browser tries
 */
export function alongWithEntries(
  isOpen: (recordId: string) => boolean,
  read: ReadEntries,
  push: (notice: Notice) => void,
): (notice: Notice) => void {
  const waiting = new Map<string, Set<string>>()
  let reading = false

  async function readOn(): Promise<void> {
    reading = true
    try {
      await readAll()
    }
    finally {
      reading = false
    }
  }

  async function readAll(): Promise<void> {
    for (let next = waiting.entries().next().value; next; next = waiting.entries().next().value) {
      const [recordId, ids] = next
      const together = [...ids].slice(0, MOST)
      for (const id of together) ids.delete(id)
      if (ids.size === 0) waiting.delete(recordId)
      for (const notice of await noticesOf(recordId, together)) push(notice)
    }
  }

  async function noticesOf(recordId: string, ids: string[]): Promise<Notice[]> {
    try {
      return (await read(recordId, ids)).map(entry => ({ kind: 'entry', recordId, activityId: entry.id, entry }))
    }
    catch (error) {
      log.warn({ err: error }, 'entries could not be sent along with their notices; browsers fetch them')
      return ids.map(activityId => ({ kind: 'entry', recordId, activityId }))
    }
  }

  return (notice) => {
    if (notice.kind !== 'entry' || !isOpen(notice.recordId)) return push(notice)
    const ids = waiting.get(notice.recordId) ?? new Set()
    waiting.set(notice.recordId, ids.add(notice.activityId))
    if (!reading) void readOn()
  }
}
