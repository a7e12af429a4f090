import { createEventStream, type H3Event } from 'h3'
import type { Notice } from '~~/shared/live'
import type { Asker } from '~~/shared/permissions'
import { Problem } from '../http/problem'
import { alongWithEntries, type ReadEntries } from './along'
import { hear } from './between'
import { listen } from './notices'
import { isLooking } from './presence'

const KEEP_ALIVE_MS = 20_000

/** A browser has one, however many tabs; a few more while one takes over from another. */
const MOST_OF_ONE_SIGN_IN = 6

interface Open { signInId: string, close: () => void }

const open = new Set<Open>()

hear('sign-out', ({ signInId }: { signInId: string }) => closeWhere(one => one.signInId === signInId))

/**
 * One stream of notices for a browser, over server-sent events. It ends with the sign-in.
 *
 * @param readEntries of what this asker may see
 * @throws Problem 429 for more than a browser needs
 */
export function openStream(event: H3Event, asker: Asker & { signInId?: string }, readEntries: ReadEntries) {
  const signInId = asker.signInId!
  if ([...open].filter(one => one.signInId === signInId).length >= MOST_OF_ONE_SIGN_IN)
    throw new Problem(429, 'too-many-streams', 'Too many streams', 'This sign-in has more streams open than a browser needs. Close some.')
  const stream = createEventStream(event)
  const push = (notice: Notice) => void stream.push(JSON.stringify(notice))
  const stopListening = listen(asker, alongWithEntries(recordId => isLooking(asker.id, recordId, new Date()), readEntries, push))
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), KEEP_ALIVE_MS).unref()
  const mine: Open = { signInId, close: () => void stream.close() }
  open.add(mine)
  stream.onClosed(() => {
    clearInterval(beat)
    stopListening()
    open.delete(mine)
  })
  // from here on nothing is missed; the browser fetches what happened before
  void stream.push({ event: 'listening', data: '' })
  return stream.send()
}

function closeWhere(which: (one: Open) => boolean): void {
  for (const one of open) if (which(one)) one.close()
}

export const closeStreams = (): void => closeWhere(() => true)

/** The sign-ins that have a stream open here. */
export const listening = (): string[] => [...new Set([...open].map(({ signInId }) => signInId))]

/** Closes the streams of sign-ins that do not hold on: one that has run out says so to nobody. */
export function closeAllBut(holding: Set<string>): void {
  closeWhere(({ signInId }) => !holding.has(signInId))
}
