import { openDoor } from '~~/server/db/door'
import { openEmbedded, type EmbeddedDatabase } from '~~/server/db/embedded/open'
import { builtFolder } from '~~/server/db/start'

/** A database of its own for a test file, in memory, behind the one door. */
export function useDatabase(): () => EmbeddedDatabase {
  let database: EmbeddedDatabase
  beforeAll(async () => {
    database = await openEmbedded(`${builtFolder()}/database-thread.mjs`, { startFrom: `${builtFolder()}/empty-database.tar.gz` })
    openDoor(database.pool)
  })
  afterAll(() => database.close())
  return () => database
}
