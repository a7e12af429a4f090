import { and, eq, or, sql } from 'drizzle-orm'
import { zoneRules } from '~~/core/hours/zones'
import type { ZoneRules } from '~~/core/hours/rules'
import { periodEnd, periodStart } from '~~/core/money/limit'
import { sayMoney, type Money } from '~~/core/numbers/money'
import type { MoneyLimit } from '~~/shared/money'
import type { LimitForm } from '~~/shared/schemas/money'
import { ask, read, tx } from '../db/door'
import { at } from '../db/instants'
import { colleague, line, moneyEntry, moneyHold, moneyLimit, team, teamMember } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { settleAsksOf } from './asks'
import { mustEditMoney } from './may'

type Limit = typeof moneyLimit.$inferSelect
type Whose = Pick<Limit, 'colleagueId' | 'teamId'>

/** Days and months of a colleague begin by their own clock; those of a team by the clock of the first of its people. */
async function zoneOf({ colleagueId, teamId }: Whose): Promise<ZoneRules> {
  const { rows: [found] } = await ask<{ zone: string }>(colleagueId
    ? sql`select zone from ${colleague} where id = ${colleagueId}::uuid`
    : sql`select c.zone from ${teamMember} m join ${colleague} c on c.id = m.colleague_id where m.team_id = ${teamId}::uuid order by c.id limit 1`)
  return zoneRules(found?.zone ?? 'Etc/UTC')!
}

/** What was spent since an instant, and is promised: by somebody, or from the lines of a team. */
async function spentSince({ colleagueId, teamId }: Whose, currency: string, since: number): Promise<number> {
  const whose = colleagueId
    ? sql`x.colleague_id = ${colleagueId}::uuid`
    : sql`x.line_id in (select id from ${line} where team_id = ${teamId}::uuid)`
  const { rows: [found] } = await ask<{ micros: number }>(sql`
    select coalesce(sum(micros), 0)::float8 as micros from (
      select -x.micros as micros from ${moneyEntry} x where x.kind not in ('paid-in', 'call') and x.currency = ${currency} and x.at >= ${at(since)} and ${whose}
      union all
      select x.micros from ${moneyHold} x where x.currency = ${currency} and x.at >= ${at(since)} and ${whose}
    ) s`)
  return found!.micros
}

const spentOf = async (limit: Limit, now: Date) =>
  spentSince(limit, limit.currency, periodStart(limit.period, await zoneOf(limit), now.getTime()))

/**
 * Whether a text stays within the limits of whoever writes it and of the team whose line it is. In the transaction that queues it: of two
 * that are sent at once the second sees the first.
 *
 * @throws Problem 409 `over-limit`, with when it begins anew
 */
export async function mustBeWithinLimits(colleagueId: string, teamId: string | null, cost: Money, now: Date): Promise<void> {
  await tx(async (database) => {
    const limits = await database.select().from(moneyLimit)
      .where(and(
        eq(moneyLimit.currency, cost.currency),
        or(eq(moneyLimit.colleagueId, colleagueId), teamId ? eq(moneyLimit.teamId, teamId) : undefined),
      ))
      .orderBy(moneyLimit.id).for('update')
    for (const limit of limits) {
      if (await spentOf(limit, now) + cost.micros <= limit.micros) continue
      const whose = limit.colleagueId ? 'You may' : 'Your team may'
      const until = periodEnd(limit.period, await zoneOf(limit), now.getTime())
      throw conflict(
        'over-limit',
        'Over the limit',
        `${whose} spend ${sayMoney(limit)} a ${limit.period} on texts, and this one would be over it. It begins anew ${limit.period === 'day' ? 'tomorrow' : 'next month'}; until then an admin can widen it.`,
        { currency: limit.currency, until },
      )
    }
  })
}

/** Every limit, with what of it is spent. */
export async function listLimits(now: Date): Promise<MoneyLimit[]> {
  const rows = await read(database => database.select({ limit: moneyLimit, person: colleague.name, team: team.name }).from(moneyLimit)
    .leftJoin(colleague, eq(colleague.id, moneyLimit.colleagueId))
    .leftJoin(team, eq(team.id, moneyLimit.teamId))
    .orderBy(sql`coalesce(${colleague.name}, ${team.name})`, moneyLimit.period))
  return Promise.all(rows.map(async ({ limit, person, team: teamName }) => ({
    id: limit.id,
    whose: limit.colleagueId
      ? { colleagueId: limit.colleagueId, teamId: null, name: person! }
      : { colleagueId: null, teamId: limit.teamId!, name: teamName! },
    period: limit.period,
    currency: limit.currency,
    micros: limit.micros,
    spentMicros: await spentOf(limit, now),
  })))
}

/** Sets a limit; one for the same is replaced by it. */
export async function setLimit(asker: SignedIn, { id, micros, ...whose }: LimitForm, now: Date): Promise<void> {
  mustEditMoney(asker)
  if ((whose.colleagueId === null) === (whose.teamId === null)) throw badInput({ whose: 'Choose a colleague or a team.' })
  await tx(async (database) => {
    await database.insert(moneyLimit).values({ id, ...whose, micros, madeBy: asker.id, madeAt: now })
      .onConflictDoUpdate({
        target: [moneyLimit.colleagueId, moneyLimit.teamId, moneyLimit.period, moneyLimit.currency],
        set: { micros, madeBy: asker.id, madeAt: now },
      })
    await note('money-limit-set', asker.id, now, { ...whose, micros })
    await settleAsksOf(asker, whose, now)
  })
}

export async function removeLimit(asker: SignedIn, id: string, now: Date): Promise<void> {
  mustEditMoney(asker)
  await tx(async (database) => {
    const [gone] = await database.delete(moneyLimit).where(eq(moneyLimit.id, id)).returning()
    if (!gone) throw notFound('limit')
    const { colleagueId, teamId, period, currency, micros } = gone
    await note('money-limit-removed', asker.id, now, { colleagueId, teamId, period, currency, micros })
    await settleAsksOf(asker, gone, now)
  })
}
