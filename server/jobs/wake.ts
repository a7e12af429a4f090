import { EventEmitter } from 'node:events'
import { afterCommit } from '../db/door'

/** Tells the outbox of this process when there is something to do; it looks by itself every second too. */
export const alarm = new EventEmitter()

export function wakeOutbox(dueAt: Date): void {
  afterCommit(() => alarm.emit('due', dueAt))
}
