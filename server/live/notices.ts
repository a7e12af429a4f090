import { EventEmitter } from 'node:events'
import { can, type Asker, type Belongs, type Permission } from '~~/shared/permissions'
import type { Notice } from '~~/shared/live'
import { afterCommit } from '../db/door'

interface Sent { notice: Notice, permission: Permission, about: Belongs[] }

const bus = new EventEmitter().setMaxListeners(0)

/**
 * Tells browsers that something changed, after the transaction around has committed, and only those of
 * people who hold the right on at least one of the things it is about.
 */
export function announce(notice: Notice, permission: Permission, about: Belongs[]): void {
  afterCommit(() => announceNow(notice, permission, about))
}

/** For what is in no transaction, such as who is looking. */
export function announceNow(notice: Notice, permission: Permission, about: Belongs[]): void {
  bus.emit('notice', { notice, permission, about } satisfies Sent)
}

/** Calls back with every notice that this person may have; returns how to stop. */
export function listen(asker: Asker, hear: (notice: Notice) => void): () => void {
  const onSent = ({ notice, permission, about }: Sent) => {
    if (about.some(thing => can(asker, permission, thing))) hear(notice)
  }
  bus.on('notice', onSent)
  return () => bus.off('notice', onSent)
}
