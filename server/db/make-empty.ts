import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { openEmbedded } from './embedded/open'

/**
 * A database in memory with every migration applied, as a tar from which others start.
 *
 * @param parts the folder with the database's thread and the migrations
 */
export async function makeEmpty(parts: string): Promise<Uint8Array> {
  const database = await openEmbedded(join(parts, 'database-thread.mjs'), {})
  await migrate(drizzle(database.pool), { migrationsFolder: join(parts, 'migrations') })
  const tar = await database.dump()
  await database.close()
  return tar
}
