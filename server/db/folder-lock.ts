import { createHash } from 'node:crypto'
import { mkdirSync, realpathSync } from 'node:fs'
import { createServer, type Server } from 'node:net'

export class FolderInUse extends Error {
  constructor(folder: string) {
    super(`The data folder ${folder} is in use by another Plauder. Stop that one, or give this one another folder in PLAUDER_DATA.`)
  }
}

/**
 * Holds a data folder for this process alone. PGlite has no lock of its own, and a second process's
 * writes would vanish. The lock is an abstract Unix socket named after the folder: the kernel gives it
 * to one process only and takes it back when that one ends, however it ends, so nothing is left to
 * clear away after a crash.
 *
 * @throws FolderInUse if another process holds it
 */
export async function lockFolder(folder: string): Promise<Server> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const name = createHash('sha256').update(realpathSync(folder)).digest('hex').slice(0, 32)
  const lock = createServer()
  await new Promise<void>((resolve, reject) => {
    lock.once('error', (error: NodeJS.ErrnoException) => reject(error.code === 'EADDRINUSE' ? new FolderInUse(folder) : error))
    lock.listen(`\0plauder-${name}`, resolve)
  })
  return lock.unref()
}
