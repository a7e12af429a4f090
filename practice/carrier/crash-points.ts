import { closeSync, openSync } from 'node:fs'
import { join } from 'node:path'

/** As in the application: named places in which the kill test ends the carrier, once each. */
export type CrashPoint = 'accepted' | 'arrived'

export function crashPoint(name: CrashPoint): void {
  if (process.env.PRACTICE_CRASH_AT !== name) return
  try {
    closeSync(openSync(join(process.env.PRACTICE_DATA!, `crashed-${name}`), 'wx'))
  }
  catch {
    return
  }
  process.kill(process.pid, 'SIGKILL')
}
