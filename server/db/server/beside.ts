import type pg from 'pg'
import { untilItStands } from '../clash'
import type { Beside } from '../door'

/** Shared by the transactions that run beside each other, in whatever process; held whole by one that must be alone. */
const HOUSE = 7_528_338

/**
 * How transactions run beside each other on a server: each is done until it stands, and one that has lost too often waits
 * until everybody is out, keeps the others out, and so cannot lose again.
 */
export const BESIDE: Beside = {
  until: untilItStands,

  async begin(connection: pg.PoolClient, alone: boolean): Promise<void> {
    if (alone) {
      await connection.query(`select pg_advisory_lock(${HOUSE})`)
      await connection.query('begin')
      return
    }
    while (!await isLetIn(connection)) {
      await connection.query('rollback')
      // somebody is alone: what was seen before they were done would be old
      await connection.query(`select pg_advisory_lock_shared(${HOUSE})`)
      await connection.query(`select pg_advisory_unlock_shared(${HOUSE})`)
    }
  },

  async left(connection: pg.PoolClient, alone: boolean): Promise<void> {
    if (alone) await connection.query(`select pg_advisory_unlock(${HOUSE})`)
  },
}

/** Begins and asks in one go, so that it costs no round trip; the lock goes with the transaction. */
async function isLetIn(connection: pg.PoolClient): Promise<boolean> {
  const answers = (await connection.query(`begin; select pg_try_advisory_xact_lock_shared(${HOUSE}) as free`)) as unknown as {
    rows: { free: boolean }[]
  }[]
  return answers[1]!.rows[0]!.free
}
