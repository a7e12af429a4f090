import { join } from 'node:path'
import { openDoor } from '../door'
import type { OpenDatabase } from '../start'
import { BESIDE } from './beside'
import { bringUpToDate } from './migrate'
import { openServer } from './open'

/**
 * Opens the database of a PostgreSQL server, brought up to date.
 *
 * @param built where the migrations lie
 */
export async function startOnServer(url: string, built: string): Promise<OpenDatabase> {
  await bringUpToDate(url, join(built, 'migrations'))
  const database = openServer(url)
  openDoor(database.pool, BESIDE)
  return database
}
