import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { openDoor } from '~~/server/db/door'
import { openEmbedded, type EmbeddedDatabase } from '~~/server/db/embedded/open'
import { BESIDE } from '~~/server/db/server/beside'
import { openServer } from '~~/server/db/server/open'
import { builtFolder, type OpenDatabase } from '~~/server/db/start'

/** Where the tests run on a PostgreSQL server: its address, with a migrated, empty database named `empty`. */
const SERVER = process.env.TEST_SERVER

/** A database of its own for a test file, behind the one door: in memory, or on the server that the tests run on. */
export function useDatabase(): () => OpenDatabase {
  let database: OpenDatabase
  beforeAll(async () => {
    database = SERVER ? await openOnServer(SERVER) : await openInMemory()
  })
  afterAll(() => database.close())
  return () => database
}

/** For what only the embedded database does. */
export function useEmbeddedDatabase(): () => EmbeddedDatabase {
  let database: EmbeddedDatabase
  beforeAll(async () => {
    database = await openInMemory()
  })
  afterAll(() => database.close())
  return () => database
}

async function openInMemory(): Promise<EmbeddedDatabase & OpenDatabase> {
  const database = await openEmbedded(`${builtFolder()}/database-thread.mjs`, { startFrom: `${builtFolder()}/empty-database.tar.gz` })
  openDoor(database.pool)
  return { ...database, missingBytes: 0 }
}

async function openOnServer(server: string): Promise<OpenDatabase> {
  const name = `test-${randomUUID()}`
  const client = new pg.Client({ connectionString: `${server}/postgres` })
  await client.connect()
  await client.query(`create database "${name}" template empty`)
  await client.end()
  const database = openServer(`${server}/${name}`)
  openDoor(database.pool, BESIDE)
  return database
}
