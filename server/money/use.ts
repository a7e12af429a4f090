import { sql, type SQL } from 'drizzle-orm'
import type { Ledger, LedgerEntry, MoneyUse, UseBy } from '~~/shared/money'
import type { LedgerQuery, UseQuery } from '~~/shared/schemas/money'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { colleague, line, moneyEntry, team } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { mustEditMoney } from './may'

/**
 * The line of an entry `e`, as `l`. The rent of a number that was no line yet when its carrier charged it is that of the line which it
 * has become.
 */
const JOIN_LINE = sql`left join ${line} l on l.id = e.line_id or (e.line_id is null and e.kind = 'rent' and l.e164 = e.words)`

/** By what use is added up: under which key it stands, and what that is called. */
const BY: Record<UseBy, (zone: string) => { key: SQL, name: SQL }> = {
  line: () => ({ key: sql`l.id::text`, name: sql`l.name` }),
  colleague: () => ({ key: sql`e.colleague_id::text`, name: sql`c.name` }),
  team: () => ({ key: sql`l.team_id::text`, name: sql`t.name` }),
  month: (zone) => {
    const month = sql`to_char(e.at at time zone ${sql.param(zone)}::text, 'YYYY-MM')`
    return { key: month, name: month }
  },
}

/** What was spent since an instant, by what is asked for; the most first, months from the latest. */
export async function useOf(asker: SignedIn, { by, since }: UseQuery): Promise<MoneyUse[]> {
  mustEditMoney(asker)
  const { key, name } = BY[by](asker.zone)
  const { rows } = await ask<MoneyUse & Record<string, unknown>>(sql`
    select * from (
      select coalesce(${key}, '') as key, coalesce(max(${name}), '') as name, e.currency, -sum(e.micros)::float8 as micros,
        (count(*) filter (where e.kind = 'text'))::int as texts, (count(*) filter (where e.kind = 'call'))::int as calls
      from ${moneyEntry} e ${JOIN_LINE} left join ${team} t on t.id = l.team_id
      left join ${colleague} c on c.id = e.colleague_id
      where e.kind <> 'paid-in' and e.at >= ${at(since)} group by 1, e.currency
    ) u order by ${by === 'month' ? sql`key desc` : sql`micros desc, name`}`)
  return rows
}

const PAGE = 50

/** A page of the ledger, the newest first. */
export async function readLedger(asker: SignedIn, { kind, after }: LedgerQuery): Promise<Ledger> {
  mustEditMoney(asker)
  const { rows } = await ask<LedgerEntry & Record<string, unknown>>(sql`
    select e.id, ${milliseconds(sql`e.at`)} as at, e.kind, e.currency, e.micros::float8 as micros, l.name as line, c.name as colleague,
      case when e.kind = 'rent' and l.id is not null then '' else e.words end as words
    from ${moneyEntry} e ${JOIN_LINE} left join ${colleague} c on c.id = coalesce(e.colleague_id, e.entered_by)
    where ${kind ? sql`e.kind = ${kind}` : sql`true`}
      and ${after ? sql`(e.at, e.id) < (select b.at, b.id from ${moneyEntry} b where b.id = ${after}::uuid)` : sql`true`}
    order by e.at desc, e.id desc limit ${sql.raw(String(PAGE + 1))}`)
  const entries = rows.slice(0, PAGE)
  return { entries, next: rows.length > PAGE ? entries.at(-1)!.id : null }
}
