import { closeSync, openSync } from 'node:fs'
import { join } from 'node:path'
import { settings } from '../settings'

/**
 * Named places in which the kill test ends the process as a power cut would. Each kills once: a file in
 * the data folder remembers. Nothing happens unless PLAUDER_CRASH_AT names the place.
 */
export type CrashPoint
  = | 'claimed'
    | 'handing-over'
    | 'answered'
    | 'settled'
    | 'event-stored'
    | 'piece-changed'
    | 'piece-imported'
    | 'effect-done'
    | 'disposed'
    | 'dialling'
    | 'bulk-checked'
    | 'bulk-sent'

export function crashPoint(name: CrashPoint): void {
  if (settings().PLAUDER_CRASH_AT !== name) return
  try {
    closeSync(openSync(join(settings().PLAUDER_DATA, `crashed-${name}`), 'wx'))
  }
  catch {
    return
  }
  process.kill(process.pid, 'SIGKILL')
}
