import { and, eq, isNull, sql, type SQL } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { MoneyAsk } from '~~/shared/money'
import type { AskForm } from '~~/shared/schemas/money'
import { ask, once, tx } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { colleague, moneyAsk, teamMember } from '../db/schema'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { mustEditMoney } from './may'

/** Asks the admins for money; to ask again while one waits is to ask once. */
export async function askForMoney(asker: SignedIn, { currency, why }: AskForm, now: Date): Promise<void> {
  await tx(async () => {
    const { rows } = await once(sql`
      insert into ${moneyAsk} (id, colleague_id, currency, why, at) values (${uuid()}::uuid, ${asker.id}::uuid, ${currency}, ${why}, ${at(now)})
      on conflict (colleague_id, currency) where settled_at is null do nothing returning id`)
    if (rows.length === 0) return
    await note('money-asked', asker.id, now, { currency, why })
    tellAdmins()
  })
}

export async function openAsks(): Promise<MoneyAsk[]> {
  const { rows } = await ask<MoneyAsk & Record<string, unknown>>(sql`
    select k.id, c.name, k.currency, k.why, ${milliseconds(sql`k.at`)} as at from ${moneyAsk} k join ${colleague} c on c.id = k.colleague_id
    where k.settled_at is null order by k.at`)
  return rows
}

/** Whoever has asked for money in a currency hears that there is some, or that none is needed. */
export async function settleAsks(asker: SignedIn, currency: string, now: Date): Promise<void> {
  await settle(eq(moneyAsk.currency, currency), asker, now)
}

async function settle(which: SQL, asker: SignedIn, now: Date): Promise<void> {
  await tx(async (database) => {
    const settled = await database.update(moneyAsk).set({ settledAt: now, settledBy: asker.id })
      .where(and(which, isNull(moneyAsk.settledAt)))
      .returning({ colleagueId: moneyAsk.colleagueId })
    if (settled.length > 0) announce({ kind: 'money' }, 'line.answer', settled.map(({ colleagueId }) => ({ ownerId: colleagueId, teamId: null })))
    tellAdmins()
  })
}

/** An admin has seen to it otherwise, or says no: whoever asked hears that they may look again. */
export async function settleAsk(asker: SignedIn, id: string, now: Date): Promise<void> {
  mustEditMoney(asker)
  await settle(eq(moneyAsk.id, id), asker, now)
}

/** A limit is another one: whom it held hears that they may look again. */
export async function settleAsksOf(
  asker: SignedIn,
  { colleagueId, teamId }: { colleagueId: string | null, teamId: string | null },
  now: Date,
): Promise<void> {
  await settle(colleagueId
    ? eq(moneyAsk.colleagueId, colleagueId)
    : sql`${moneyAsk.colleagueId} in (select m.colleague_id from ${teamMember} m where m.team_id = ${teamId}::uuid)`, asker, now)
}

/** How many wait for money, for an admin. */
export async function countAsks(): Promise<number> {
  const { rows: [found] } = await ask<{ count: number }>(sql`select count(*)::int as count from ${moneyAsk} where settled_at is null`)
  return found!.count
}

export const tellAdmins = () => announce({ kind: 'money' }, 'money.edit', [{}])
