import { dirname, join } from 'node:path'
import type pg from 'pg'
import { settings } from '../settings'
import { startEmbedded } from './embedded/start'
import { startOnServer } from './server/start'

export interface OpenDatabase {
  pool: pg.Pool
  /** So much of what was written last could not be read any more after the last stop. */
  missingBytes: number
  /** Copies its files, where it has any of its own. */
  copyTo?: (folder: string) => Promise<void>
  close: () => Promise<void>
}

/** Beside the built server lie the database's thread, the migrations and an empty database to start from. */
export const builtFolder = () => settings().PLAUDER_BUILD ?? join(dirname(process.argv[1]!), '..', 'parts')

/** The address of a PostgreSQL server, where there is one; otherwise the database lies in the data folder. */
export const databaseUrl = (): string | null => settings().DATABASE_URL ?? null

/**
 * Opens the database, brought up to date, behind the one door.
 *
 * @throws FolderInUse if another process has the data folder
 */
export async function startDatabase(dataFolder: string): Promise<OpenDatabase> {
  const url = databaseUrl()
  return url ? startOnServer(url, builtFolder()) : startEmbedded(dataFolder, builtFolder())
}
