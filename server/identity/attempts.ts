import { getTableName } from 'drizzle-orm'
import type pg from 'pg'
import { RateLimiterMemory, RateLimiterPostgres, RateLimiterRes, type RateLimiterAbstract } from 'rate-limiter-flexible'
import { untilItStands } from '../db/clash'
import { signInAttempt } from '../db/schema'
import { Problem } from '../http/problem'

/** Wrong passwords in a quarter of an hour: for one account, from one address, and from one browser that is known for an account. */
const QUARTER_OF_AN_HOUR = 900
const LIMITS = {
  account: { keyPrefix: 'account', points: 10, duration: QUARTER_OF_AN_HOUR },
  address: { keyPrefix: 'address', points: 30, duration: QUARTER_OF_AN_HOUR },
  device: { keyPrefix: 'device', points: 10, duration: QUARTER_OF_AN_HOUR },
} as const

type Limits = Record<keyof typeof LIMITS, RateLimiterAbstract>

const limitsWith = (make: (options: { keyPrefix: string, points: number, duration: number }) => RateLimiterAbstract): Limits =>
  ({ account: make(LIMITS.account), address: make(LIMITS.address), device: make(LIMITS.device) })

let limits = limitsWith(options => new RateLimiterMemory(options))

/** Counts from now on in a server's database, so that attempts at several processes add up. */
export function countAttemptsIn(pool: pg.Pool): void {
  const storeClient = { query: (query: pg.QueryConfig) => untilItStands(() => pool.query(query)) }
  const store = {
    storeClient,
    storeType: 'client',
    tableName: getTableName(signInAttempt),
    tableCreated: true,
    clearExpiredByTimeout: true,
  }
  limits = limitsWith(options => new RateLimiterPostgres({ ...options, ...store }))
}

/** Who tries: for which account, from where, and in which browser, if it is known for that account. */
export interface Attempt { account: string, address: string, /** The hash of its token. */ knownDevice: string | null }

/**
 * Counts an attempt. A browser that is known for the account is counted by itself: however many wrong passwords strangers
 * try, or come from the address behind which the whole firm sits, whoever was signed in here before gets in.
 *
 * @throws Problem 429 after too many
 */
export async function countAttempt({ account, address, knownDevice }: Attempt): Promise<void> {
  try {
    if (knownDevice) {
      await limits.device.consume(knownDevice)
      return
    }
    await limits.address.consume(address)
    await limits.account.consume(account)
  }
  catch (limit) {
    if (!(limit instanceof RateLimiterRes)) throw limit
    const minutes = Math.ceil(limit.msBeforeNext / 60_000)
    throw new Problem(
      429,
      'too-many-attempts',
      'Too many attempts',
      `Too many wrong passwords. Try again in ${minutes} min, or in a browser in which you were signed in before.`,
    )
  }
}

/** The password was right: what was counted for it goes. */
export async function forgetAttempts({ account, address, knownDevice }: Attempt): Promise<void> {
  if (knownDevice) await limits.device.delete(knownDevice)
  else await Promise.all([limits.account.delete(account), limits.address.reward(address)])
}
