import { closeSync, mkdirSync, openSync } from 'node:fs'
import { join } from 'node:path'
import { tryLock } from 'fs-native-extensions'
import { PlainError } from '../log/failure'

export class FolderInUse extends PlainError {
  constructor(folder: string) {
    super(`The data folder ${folder} is in use by another Plauder. Stop that one, or give this one another folder in PLAUDER_DATA.`)
  }
}

/**
 * Holds a data folder for this process alone. PGlite has no lock of its own, and a second process's writes would vanish.
 * The kernel locks a file inside of the folder itself (an open file description lock, fcntl(2)), so it makes no
 * difference by which path, which mount or from which network namespace somebody comes; it gives it back when the process ends,
 * however it ends, and nothing is left to clear away after a crash.
 *
 * @returns how to give it back
 * @throws FolderInUse if another process holds it
 */
export async function lockFolder(folder: string): Promise<() => void> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = openSync(join(folder, 'in-use'), 'a+', 0o600)
  if (!tryLock(file)) {
    closeSync(file)
    throw new FolderInUse(folder)
  }
  return () => closeSync(file)
}
