import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { lastsDays, PACE_DAYS, runsOut } from '~~/core/money/pace'
import { covers, leftIn } from '~~/core/money/purse'
import type { Money } from '~~/core/numbers/money'
import type { MoneyAccount, MoneyFront } from '~~/shared/money'
import type { AccountForm, PayInForm } from '~~/shared/schemas/money'
import { ask, once, read, tx } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { moneyAccount, moneyEntry, team } from '../db/schema'
import { notFound } from '../http/problem'
import { note } from '../identity/audit'
import { colleagues } from '../identity/colleagues'
import type { SignedIn } from '../identity/sign-in'
import { openAsks, settleAsks, tellAdmins } from './asks'
import { listLimits } from './limits'
import { mustEditMoney } from './may'
import { book } from './settle'

const PRACTICE_MONEY = { currency: 'USD', micros: 20_000_000 }

const PACE_MS = PACE_DAYS * 86_400_000

/** What is there in each currency, and for how long it lasts: by what texts cost a day; rent comes once a month. */
export async function listAccounts(now: Date): Promise<MoneyAccount[]> {
  const { rows } = await ask<Omit<MoneyAccount, 'lastsDays' | 'runsOut'> & { firstAt: number | null } & Record<string, unknown>>(sql`
    select a.currency, a.prepaid, a.balance_micros::float8 as "balanceMicros", a.held_micros::float8 as "heldMicros", a.warn_days as "warnDays",
      coalesce(s.micros, 0)::float8 as "spentMicros", ${milliseconds(sql`s.first_at`)} as "firstAt"
    from ${moneyAccount} a left join lateral (
      select -sum(e.micros) as micros, min(e.at) as first_at from ${moneyEntry} e
      where e.currency = a.currency and e.kind not in ('paid-in', 'rent') and e.at >= ${at(now.getTime() - PACE_MS)}
    ) s on true order by a.currency`)
  return rows.map(({ firstAt, ...account }) => {
    const lasts = lastsDays(account, account.spentMicros, firstAt, now.getTime())
    return { ...account, lastsDays: lasts, runsOut: runsOut(account, lasts, account.warnDays) }
  })
}

/** All that an admin sees of it at once. */
export async function readMoney(asker: SignedIn, now: Date): Promise<MoneyFront> {
  mustEditMoney(asker)
  return {
    accounts: await listAccounts(now),
    limits: await listLimits(now),
    asks: await openAsks(),
    colleagues: await colleagues(),
    teams: await read(database => database.select({ id: team.id, name: team.name }).from(team).orderBy(team.name)),
  }
}

/** Enters what was paid to a carrier, once by its id; whoever has asked for it hears of it. */
export async function payIn(asker: SignedIn, { id, currency, micros, words }: PayInForm, now: Date): Promise<void> {
  mustEditMoney(asker)
  await tx(async () => {
    if (!await enterPaidIn({ id, currency, micros, words, enteredBy: asker.id }, now)) return
    await note('money-paid-in', asker.id, now, { currency, micros, words })
    await settleAsks(asker, currency, now)
  })
}

/** @returns whether it was not there already */
async function enterPaidIn({ id, currency, micros, words, enteredBy }: PayInForm & { enteredBy: string }, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const [made] = await database.insert(moneyEntry).values({ id, at: now, kind: 'paid-in', currency, micros, words, enteredBy })
      .onConflictDoNothing().returning({ id: moneyEntry.id })
    if (made) await book({ currency, micros })
    return made !== undefined
  })
}

/** Whether a currency is paid in advance, and when admins are warned. */
export async function changeAccount(asker: SignedIn, { currency, prepaid, warnDays }: AccountForm, now: Date): Promise<void> {
  mustEditMoney(asker)
  await tx(async (database) => {
    const [before] = await database.select().from(moneyAccount).where(eq(moneyAccount.currency, currency)).for('update')
    if (!before) throw notFound('account')
    await database.update(moneyAccount).set({ prepaid, warnDays }).where(eq(moneyAccount.currency, currency))
    await note('money-account-changed', asker.id, now, { currency, from: { prepaid: before.prepaid, warnDays: before.warnDays }, to: { prepaid, warnDays } })
    // nobody waits for what is billed afterwards
    if (!prepaid) await settleAsks(asker, currency, now)
    tellAdmins()
  })
}

/** A currency in which a carrier has told prices has an account from then on. */
export async function haveAccounts(currencies: readonly string[]): Promise<void> {
  for (const currency of new Set(currencies))
    await once(sql`insert into ${moneyAccount} (currency) values (${currency}) on conflict do nothing`)
}

/** What a firm begins with at the practice carrier, whose money is practice money. */
export async function beginWithPracticeMoney(enteredBy: string, now: Date): Promise<void> {
  await tx(async (database) => {
    await enterPaidIn({ id: uuid(), ...PRACTICE_MONEY, words: 'Practice money to begin with', enteredBy }, now)
    await database.update(moneyAccount).set({ prepaid: true }).where(eq(moneyAccount.currency, PRACTICE_MONEY.currency))
  })
}

/** @returns null where an amount is covered, or its currency is billed afterwards; else what is there */
export async function coveredBy({ currency, micros }: Money): Promise<Money | null> {
  const [purse] = await read(database => database.select().from(moneyAccount).where(eq(moneyAccount.currency, currency)))
  return !purse || covers(purse, micros) ? null : { currency, micros: leftIn(purse) }
}
