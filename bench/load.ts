import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { EmbeddedDatabase } from '../server/db/embedded/open'
import type { OpenDatabase } from '../server/db/start'

/**
 * Loads rows by COPY: through the thread of the embedded database, or from a file that the server beside us reads.
 *
 * @param into a table and its columns, as in `audit (id, at, action)`
 * @param lines CSV
 */
export async function load(database: OpenDatabase | EmbeddedDatabase, into: string, lines: string[]): Promise<void> {
  if ('copyFrom' in database) return database.copyFrom(`copy ${into} from '/dev/blob' csv`, lines.join('\n'))
  const folder = mkdtempSync(join(tmpdir(), 'plauder-load-'))
  try {
    chmodSync(folder, 0o755)
    writeFileSync(join(folder, 'rows.csv'), lines.join('\n'))
    await database.pool.query(`copy ${into} from '${folder}/rows.csv' csv`)
  }
  finally {
    rmSync(folder, { recursive: true })
  }
}
