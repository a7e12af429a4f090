import { getTableName } from 'drizzle-orm'
import type pg from 'pg'
import { RateLimiterMemory, RateLimiterPostgres, RateLimiterRes, type RateLimiterAbstract } from 'rate-limiter-flexible'
import { untilItStands } from '../db/clash'
import { signInAttempt } from '../db/schema'
import { Problem } from '../http/problem'

/** Ten wrong passwords in a quarter of an hour, for an account from one address; thirty from one address. */
const PER_ACCOUNT = { keyPrefix: 'account', points: 10, duration: 900 }
const PER_ADDRESS = { keyPrefix: 'address', points: 30, duration: 900 }

interface Limits { perAccount: RateLimiterAbstract, perAddress: RateLimiterAbstract }

let limits: Limits = { perAccount: new RateLimiterMemory(PER_ACCOUNT), perAddress: new RateLimiterMemory(PER_ADDRESS) }

/** Counts from now on in a server's database, so that attempts at several processes add up. */
export function countAttemptsIn(pool: pg.Pool): void {
  const store = { storeClient: { query: (query: pg.QueryConfig) => untilItStands(() => pool.query(query)) }, storeType: 'client', tableName: getTableName(signInAttempt), tableCreated: true, clearExpiredByTimeout: true }
  limits = { perAccount: new RateLimiterPostgres({ ...PER_ACCOUNT, ...store }), perAddress: new RateLimiterPostgres({ ...PER_ADDRESS, ...store }) }
}

/** @throws Problem 429 after too many */
export async function countAttempt(account: string, address: string): Promise<void> {
  try {
    await limits.perAddress.consume(address)
    await limits.perAccount.consume(`${account} ${address}`)
  }
  catch (limit) {
    if (!(limit instanceof RateLimiterRes)) throw limit
    const minutes = Math.ceil(limit.msBeforeNext / 60_000)
    throw new Problem(429, 'too-many-attempts', 'Too many attempts', `Too many wrong passwords. Try again in ${minutes} min, or ask an admin.`)
  }
}

/** The password was right: what was counted for it goes. */
export async function forgetAttempts(account: string, address: string): Promise<void> {
  await Promise.all([limits.perAccount.delete(`${account} ${address}`), limits.perAddress.reward(address)])
}
