import { createHash } from 'node:crypto'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { v7 as uuid } from 'uuid'
import { log } from '../../http/log'
import { settings } from '../../settings'
import { openDoor } from '../door'
import { lockFolder } from '../folder-lock'
import { regularly } from '../regularly'
import { setAsideEvent } from '../schema'
import { keepMark, missingSince, placeNow } from './mark'
import { openEmbedded, type EmbeddedDatabase } from './open'

/** WAL grows by half a gigabyte in a million rows; there is no checkpointer but this one. */
const CHECKPOINT_EVERY = 60_000
const MARK_EVERY = 1_000

/**
 * Opens the embedded database of a data folder, brings it up to date and looks after it until it is closed.
 *
 * @param built where the database's thread, the migrations and an empty database lie
 * @throws FolderInUse if another process has the folder; PlainError if its files cannot be opened
 */
export async function startEmbedded(dataFolder: string, built: string): Promise<EmbeddedDatabase> {
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
  await sayWhatIsMissing(dataFolder, database)
  const stopCare = takeCare(dataFolder, database)
  return {
    ...database,
    close: async () => {
      await stopCare()
      await database.close()
      unlock()
    },
  }
}

/** Written down where an admin looks: nobody can bring it back, but nobody should find out by themselves. */
async function sayWhatIsMissing(dataFolder: string, { pool }: EmbeddedDatabase): Promise<void> {
  const missing = missingSince(dataFolder, await placeNow(pool))
  if (missing === 0) return
  log.error({ bytes: missing }, 'the end of the database\'s log is missing: what was written last is lost')
  const told = JSON.stringify({ missingBytes: missing })
  await drizzle(pool).insert(setAsideEvent).values({
    id: uuid(), teller: 'the database', hash: createHash('sha256').update(`${told} ${Date.now()}`).digest('base64url'), told, at: new Date(),
    why: 'After the last stop the end of the database’s log could not be read, so what was written last is lost. Its files are damaged: have the disk looked at, and compare with the last backup.',
  })
}

/** Checkpoints while there is writing, a mark of how far it has come, and fresh statistics once a day. */
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
    { every: 24 * 3_600_000, work: () => patiently(() => pool.query('vacuum analyze')) },
  ])
}
