import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import type pg from 'pg'

/**
 * How far the log of what was written had come, in the folder of the database itself: whoever copies or replaces that has
 * its mark too. After a crash PostgreSQL reads its log up to the first
 * piece that is damaged and takes that for the end: what was acknowledged after it would be gone without a word. The mark
 * says that there was more.
 */
const fileIn = (dataFolder: string) => join(dataFolder, 'database', 'written-up-to')

/** A place in the log, `16/B374D848`, as a number. */
const placeOf = (lsn: string): bigint => {
  const [high = '0', low = '0'] = lsn.split('/')
  return (BigInt(`0x${high}`) << BigInt(32)) + BigInt(`0x${low}`)
}

export async function placeNow(pool: pg.Pool): Promise<string> {
  const { rows: [row] } = await pool.query<{ lsn: string }>('select pg_current_wal_flush_lsn()::text as lsn')
  return row!.lsn
}

export function keepMark(dataFolder: string, lsn: string): void {
  const file = fileIn(dataFolder)
  const fresh = openSync(`${file}.new`, 'w', 0o600)
  writeSync(fresh, lsn)
  fsyncSync(fresh)
  closeSync(fresh)
  renameSync(`${file}.new`, file)
}

/** How many bytes of the log are missing since the mark was made; 0 if none are, or there is no mark. */
export function missingSince(dataFolder: string, now: string): number {
  const marked = readMark(dataFolder)
  return marked && placeOf(marked) > placeOf(now) ? Number(placeOf(marked) - placeOf(now)) : 0
}

function readMark(dataFolder: string): string | null {
  try {
    const marked = readFileSync(fileIn(dataFolder), 'utf8')
    return /^[0-9A-F]{1,8}\/[0-9A-F]{1,8}$/.test(marked) ? marked : null
  }
  catch {
    return null
  }
}
