import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join, resolve } from 'node:path'
import { PlainError } from '../log/failure'
import { openEmbedded } from '../db/embedded/open'
import { FolderInUse, lockFolder } from '../db/folder-lock'
import { hashAll, readBackup, type Manifest } from './files'
import { KEY_FILE } from './offer'
import { countIn } from './rows'

export { moveToServer } from './move'

interface BackingUp {
  dataFolder: string
  /** Where the backup goes, as a folder of its own. */
  into: string
  /** Where Plauder answers, if it runs. */
  address: string
  /** The bundled thread of the database. */
  threadFile: string
  now: Date
}

/**
 * Makes a backup of an embedded database, of a Plauder that runs or does not. It is opened once, as a copy, and counted: a
 * backup that nobody has ever opened is none.
 *
 * @returns the folder of the backup, and how many rows are in it
 * @throws PlainError where there is no database, or nobody answers
 */
export async function backUp({ dataFolder, into, address, threadFile, now }: BackingUp): Promise<{ folder: string, rows: number }> {
  if (!existsSync(join(dataFolder, 'database', 'PG_VERSION')))
    throw new PlainError(`There is no embedded database in ${dataFolder}. Name its data folder in PLAUDER_DATA; that of a server is backed up with pg_dump.`)
  const copy = await copyOf(dataFolder, address, threadFile, now)
  try {
    const files = await hashAll(join(copy, 'database'))
    const counted = await countCopy(join(copy, 'database'), threadFile)
    const manifest: Manifest = { format: 1, madeAt: now.toISOString(), ...counted, files }
    writeFileSync(join(copy, 'manifest.json'), JSON.stringify(manifest, null, 1), { mode: 0o600 })
    const folder = join(resolve(into), `plauder-${basename(copy)}`)
    mkdirSync(into, { recursive: true })
    // another disk takes a copy; whole it is only under its own name
    cpSync(copy, `${folder}.part`, { recursive: true })
    renameSync(`${folder}.part`, folder)
    return { folder, rows: Object.values(counted.rows).reduce((sum, count) => sum + count, 0) }
  }
  finally {
    rmSync(copy, { recursive: true, force: true })
  }
}

/** The files as they are at one moment: from the Plauder that runs, or, where none does, from the folder itself. */
async function copyOf(dataFolder: string, address: string, threadFile: string, now: Date): Promise<string> {
  let unlock: () => void
  try {
    unlock = await lockFolder(dataFolder)
  }
  catch (error) {
    if (!(error instanceof FolderInUse)) throw error
    return askForCopy(dataFolder, address)
  }
  try {
    const copy = join(dataFolder, 'backups', now.toISOString().replace(/[:.]/g, '-'))
    mkdirSync(copy, { recursive: true, mode: 0o700 })
    const database = await openEmbedded(threadFile, { folder: join(dataFolder, 'database') })
    try {
      await database.copyTo(join(copy, 'database'))
    }
    finally {
      await database.close()
    }
    return copy
  }
  finally {
    unlock()
  }
}

async function askForCopy(dataFolder: string, address: string): Promise<string> {
  const key = readFileSync(join(dataFolder, KEY_FILE), 'utf8')
  const answer = await fetch(`${address}/api/backup`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ key }),
  }).catch(() => {
    throw new PlainError(`The data folder is in use, and no Plauder answers at ${address}. Name its port in PORT.`)
  })
  const said = await answer.json() as { copy?: string, detail?: string }
  if (!said.copy) throw new PlainError(said.detail ?? `Plauder answers ${answer.status}.`)
  return said.copy
}

async function countCopy(database: string, threadFile: string) {
  const trying = mkdtempSync(join(tmpdir(), 'plauder-backup-'))
  try {
    cpSync(database, join(trying, 'database'), { recursive: true })
    return await countIn(join(trying, 'database'), threadFile)
  }
  finally {
    rmSync(trying, { recursive: true, force: true })
  }
}

interface Restoring {
  /** The folder of a backup. */
  from: string
  dataFolder: string
  threadFile: string
  /** How many changes of the tables this Plauder knows. */
  migrations: number
  /** Whether a database that is there makes room: it stays beside the new one. */
  replace: boolean
  now: Date
}

/**
 * Puts a backup into a data folder that no Plauder has open. Every file is held against its hash, the database is opened and
 * counted, and only then it takes its place.
 *
 * @returns where the database went that was there before, if any
 * @throws PlainError with nothing touched: for a damaged backup, a newer one, a folder in use or one that has a database
 */
export async function restore(
  { from, dataFolder, threadFile, migrations, replace, now }: Restoring,
): Promise<{ before: string | null, rows: number }> {
  const manifest = await readBackup(from)
  if (manifest.migrations > migrations)
    throw new PlainError(`The backup in ${from} was made by a newer Plauder. Install that one, or a later one, and restore it there.`)
  const unlock = await lockFolder(dataFolder)
  try {
    const [place, fresh] = [join(dataFolder, 'database'), join(dataFolder, 'database.restoring')]
    const there = existsSync(place)
    if (there && !replace)
      throw new PlainError(`There is a database in ${dataFolder} already. Name another folder in PLAUDER_DATA, or add --replace: it is kept beside the restored one.`)
    rmSync(fresh, { recursive: true, force: true })
    cpSync(join(from, 'database'), fresh, { recursive: true })
    await mustCount(fresh, threadFile, manifest, from)
    const before = there ? join(dataFolder, `database.before-${now.toISOString().replace(/[:.]/g, '-')}`) : null
    if (before) renameSync(place, before)
    renameSync(fresh, place)
    return { before, rows: Object.values(manifest.rows).reduce((sum, count) => sum + count, 0) }
  }
  finally {
    unlock()
  }
}

async function mustCount(folder: string, threadFile: string, { rows }: Manifest, from: string): Promise<void> {
  const counted = await countIn(folder, threadFile)
  const other = Object.keys(rows).find(table => counted.rows[table] !== rows[table])
  if (!other) return
  rmSync(folder, { recursive: true, force: true })
  throw new PlainError(`The backup in ${from} says that ${other} has ${rows[other]} rows, and it has ${counted.rows[other] ?? 'none'}. Nothing was touched. Take another backup.`)
}
