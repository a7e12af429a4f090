import { createHash, randomBytes, timingSafeEqual } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { conflict, Problem } from '../http/problem'
import { log } from '../log/log'

/** Whoever can read it, and so the data folder, may have the running Plauder copy its database. */
export const KEY_FILE = 'backup-key'

interface Offer { keyHash: Buffer, folder: string, copyTo: (folder: string) => Promise<void> }
let offer: Offer | null = null
let copying = false

const hashOf = (key: string) => createHash('sha256').update(key).digest()

/** From now on `bin/backup` can ask for a copy, with a key that this start has made. */
export function offerBackups(dataFolder: string, copyTo: Offer['copyTo']): void {
  const key = randomBytes(32).toString('base64url')
  writeFileSync(join(dataFolder, KEY_FILE), key, { mode: 0o600 })
  offer = { keyHash: hashOf(key), folder: dataFolder, copyTo }
}

/**
 * Copies the files of the database as they are between two transactions: all that was answered before is in it, and nothing
 * by half. Meanwhile everybody waits.
 *
 * @returns the folder of the copy
 * @throws Problem 403 for a wrong key, 409 where the database is a server's, or is being copied
 */
export async function makeCopy(key: string, now: Date): Promise<{ copy: string }> {
  if (!offer)
    throw conflict('no-files', 'Its own tools do that', 'The database is on a server. Back it up as that does, with pg_dump (docs/operating.md).')
  if (!timingSafeEqual(hashOf(key), offer.keyHash))
    throw new Problem(403, 'wrong-key', 'Not this key', `The key is not the one in ${KEY_FILE} of the data folder. It is made anew at each start.`)
  if (copying) throw conflict('copying', 'One is being made', 'A backup is being made already. Wait until it is done.')
  copying = true
  try {
    const copy = join(offer.folder, 'backups', now.toISOString().replace(/[:.]/g, '-'))
    mkdirSync(copy, { recursive: true, mode: 0o700 })
    const begun = performance.now()
    await offer.copyTo(join(copy, 'database'))
    log.info({ ms: Math.round(performance.now() - begun) }, 'the database was copied for a backup')
    return { copy }
  }
  finally {
    copying = false
  }
}
