import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { openDoor } from '../door'
import { lockFolder } from '../folder-lock'
import { regularly } from '../regularly'
import { openEmbedded, type EmbeddedDatabase } from './open'

/** WAL grows by half a gigabyte in a million rows; there is no checkpointer but this one. */
const CHECKPOINT_EVERY = 60_000

/**
 * Opens the embedded database of a data folder, brings it up to date and looks after it until it is closed.
 *
 * @param built where the database's thread, the migrations and an empty database lie
 * @throws FolderInUse if another process has the folder
 */
export async function startEmbedded(dataFolder: string, built: string): Promise<EmbeddedDatabase> {
  const lock = await lockFolder(dataFolder)
  const empty = join(built, 'empty-database.tar.gz')
  const database = await openEmbedded(join(built, 'database-thread.mjs'), {
    folder: join(dataFolder, 'database'),
    startFrom: existsSync(empty) ? empty : undefined,
  })
  await migrate(drizzle(database.pool), { migrationsFolder: join(built, 'migrations') })
  openDoor(database.pool)
  const stopCare = takeCare(database)
  return {
    ...database,
    close: async () => {
      await stopCare()
      await database.close()
      lock.close()
    },
  }
}

/** Checkpoints while there is writing, and fresh statistics once a day. */
function takeCare({ pool }: EmbeddedDatabase): () => Promise<void> {
  let written = ''
  return regularly([
    {
      every: CHECKPOINT_EVERY,
      work: async () => {
        const { rows: [{ lsn }] } = await pool.query('select pg_current_wal_lsn()::text as lsn')
        if (lsn !== written) {
          await pool.query('checkpoint')
          // nobody else sweeps: every job leaves dead rows behind in a small table that is read all the time
          await pool.query('vacuum (analyze) job')
        }
        written = lsn
      },
    },
    { every: 24 * 3_600_000, work: () => pool.query('vacuum analyze') },
  ])
}
