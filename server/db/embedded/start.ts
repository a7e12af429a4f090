import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { log } from '../../log/log'
import { settings } from '../../settings'
import { openDoor } from '../door'
import { lockFolder } from '../folder-lock'
import { regularly } from '../regularly'
import type { OpenDatabase } from '../start'
import { analyzeGrown } from './grown'
import { keepMark, missingSince, placeNow } from './mark'
import { openEmbedded, type EmbeddedDatabase } from './open'

/** WAL grows by half a gigabyte in a million rows; there is no checkpointer but this one. */
const CHECKPOINT_EVERY = 60_000
const MARK_EVERY = 1_000
/** A file that is brought in makes tables tenfold within a minute, and asks them at every piece. */
const GROWN_EVERY = 5_000

/**
 * Opens the embedded database of a data folder, brings it up to date and looks after it until it is closed.
 *
 * @param built where the database's thread, the migrations and an empty database lie
 * @throws FolderInUse if another process has the folder; PlainError if its files cannot be opened
 */
export async function startEmbedded(dataFolder: string, built: string): Promise<EmbeddedDatabase & OpenDatabase> {
  const unlock = await lockFolder(dataFolder)
  const empty = join(built, 'empty-database.tar.gz')
  const database = await openEmbedded(join(built, 'database-thread.mjs'), {
    folder: join(dataFolder, 'database'),
    startFrom: existsSync(empty) ? empty : undefined,
  }, {
    longestMs: settings().PLAUDER_LONGEST_STATEMENT_MS,
    onDead: (error) => {
      // whoever looks after this process starts it again, or is told why not
      log.fatal({ err: error }, 'the embedded database is gone')
      process.exit(1)
    },
  })
  await database.patiently(() => migrate(drizzle(database.pool), { migrationsFolder: join(built, 'migrations') }))
  openDoor(database.pool)
  const missingBytes = missingSince(dataFolder, await placeNow(database.pool))
  const stopCare = takeCare(dataFolder, database)
  return {
    ...database,
    missingBytes,
    close: async () => {
      await stopCare()
      await database.close()
      unlock()
    },
  }
}

/** Checkpoints while there is writing, a mark of how far it has come, and fresh statistics of what has grown, and of all once a day. */
function takeCare(dataFolder: string, { pool, patiently }: EmbeddedDatabase): () => Promise<void> {
  let written = ''
  let marked = ''
  return regularly([
    {
      every: MARK_EVERY,
      work: async () => {
        const lsn = await placeNow(pool)
        if (lsn !== marked) keepMark(dataFolder, lsn)
        marked = lsn
      },
    },
    {
      every: CHECKPOINT_EVERY,
      work: () => patiently(async () => {
        const { rows: [{ lsn }] } = await pool.query('select pg_current_wal_lsn()::text as lsn')
        if (lsn !== written) {
          await pool.query('checkpoint')
          // nobody else sweeps: every job leaves dead rows behind in a small table that is read all the time
          await pool.query('vacuum (analyze) job')
        }
        written = lsn
      }),
    },
    { every: GROWN_EVERY, work: () => patiently(() => analyzeGrown(pool)) },
    { every: 24 * 3_600_000, work: () => patiently(() => pool.query('vacuum analyze')) },
  ])
}
