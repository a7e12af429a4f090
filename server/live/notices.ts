import { can, type Asker, type Belongs, type Permission } from '~~/shared/permissions'
import type { Notice } from '~~/shared/live'
import { afterCommit } from '../db/door'
import { hear, say } from './between'

interface Sent { notice: Notice, permission: Permission, about: Belongs[] }

/** As many things go into one notice: it has to fit where processes tell each other. */
const MOST_THINGS = 50

/**
 * Tells browsers that something changed, after the transaction around has committed, and only those of
 * people who hold the right on at least one of the things it is about.
 */
export function announce(notice: Notice, permission: Permission, about: Belongs[]): void {
  afterCommit(() => announceNow(notice, permission, about))
}

/** For what is in no transaction, such as who is looking. */
export function announceNow(notice: Notice, permission: Permission, about: Belongs[]): void {
  const things = about.map(({ ownerId, teamId }) => ({ ownerId, teamId }))
  for (let start = 0; start < things.length; start += MOST_THINGS)
    say('notice', { notice, permission, about: things.slice(start, start + MOST_THINGS) } satisfies Sent)
}

/** Calls back with every notice that this person may have; returns how to stop. */
export function listen(asker: Asker, onNotice: (notice: Notice) => void): () => void {
  return hear('notice', ({ notice, permission, about }: Sent) => {
    if (about.some(thing => can(asker, permission, thing))) onNotice(notice)
  })
}
