import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Money } from '~~/core/numbers/money'
import { once, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { conversation, message, moneyAccount, moneyEntry, moneyHold } from '../db/schema'

/** What was held for texts that will not leave is free again. */
export async function freeHeld(messageIds: readonly string[]): Promise<void> {
  if (messageIds.length === 0) return
  await once(sql`
    with freed as (delete from ${moneyHold} where message_id = any(${uuidArray(messageIds)}) returning currency, micros)
    update ${moneyAccount} a set held_micros = a.held_micros - f.micros
    from (select currency, sum(micros)::bigint as micros from freed group by 1) f where f.currency = a.currency`)
}

/**
 * What is held for a text is from now on what it will cost over another line; nothing, where nobody knows.
 *
 * @param cost what the purse was asked to cover in this transaction
 */
export async function holdAnew(
  { messageId, colleagueId, lineId }: { messageId: string, colleagueId: string | null, lineId: string },
  cost: Money | null,
  now: Date,
): Promise<void> {
  await tx(async () => {
    await freeHeld([messageId])
    if (!cost) return
    await once(sql`
      with held as (
        insert into ${moneyHold} (message_id, currency, micros, colleague_id, line_id, at)
        values (${messageId}::uuid, ${cost.currency}, ${cost.micros}::bigint, ${colleagueId}::uuid, ${lineId}::uuid, ${at(now)})
        returning currency, micros
      )
      update ${moneyAccount} a set held_micros = a.held_micros + held.micros from held where a.currency = held.currency`)
  })
}

/**
 * A carrier has told what a text cost, after it took it: the newest word counts. What was entered before is put right by a
 * further entry, so that the ledger keeps both.
 *
 * @param charge null: nobody has told, and what was held for it is taken as what it cost
 */
export async function charge(messageId: string, charge: Money | null, now: Date): Promise<void> {
  await tx(async () => {
    const { rows: [held] } = await once<{ currency: string, micros: number }>(sql`
      select currency, micros::float8 as micros from ${moneyHold} where message_id = ${messageId}::uuid for update`)
    const cost = charge ?? held
    if (!cost) return
    await freeHeld([messageId])
    const { rows } = await once<{ currency: string, micros: number }>(sql`
      select currency, sum(micros)::float8 as micros from (
        select currency, micros from ${moneyEntry} where message_id = ${messageId}::uuid and kind = 'text'
        union all select currency, micros from ${moneyEntry} where message_id = ${messageId}::uuid and kind = 'correction') e group by 1`)
    const before = new Map(rows.map(row => [row.currency, row.micros]))
    const kind = rows.length === 0 ? 'text' : 'correction'
    // a carrier that bills in another currency than before takes the first charge back
    for (const currency of new Set([...before.keys(), cost.currency])) {
      const micros = (currency === cost.currency ? -cost.micros : 0) - (before.get(currency) ?? 0)
      if (micros !== 0) await enterText({ messageId, kind, currency, micros }, now)
    }
  })
}

async function enterText(
  { messageId, kind, currency, micros }: Money & { messageId: string, kind: 'text' | 'correction' },
  now: Date,
): Promise<void> {
  await once(sql`
    insert into ${moneyEntry} (id, at, kind, currency, micros, message_id, line_id, colleague_id)
    select ${uuid()}::uuid, ${at(now)}, ${kind}, ${currency}, ${micros}::bigint, m.id, v.line_id, m.author_id
    from ${message} m join ${conversation} v on v.id = m.conversation_id where m.id = ${messageId}::uuid`)
  await book({ currency, micros })
}

/** What a call has cost, once, whatever there is: it was made already. */
export async function enterCall(
  { id: callId, lineId, colleagueId }: { id: string, lineId: string, colleagueId: string | null },
  { micros, currency }: Money,
  when: Date,
): Promise<void> {
  if (micros === 0) return
  await tx(async (database) => {
    const entered = await database.insert(moneyEntry)
      .values({ id: uuid(), at: when, kind: 'call', currency, micros: -micros, callId, lineId, colleagueId })
      .onConflictDoNothing().returning({ id: moneyEntry.id })
    if (entered.length > 0) await book({ currency, micros: -micros })
  })
}

/** A month of a number, with what comes with the first, is owed whatever there is: who has a lost one writes to nobody. */
export async function enterRent(
  { micros, currency, lineId, words }: Money & { lineId: string | null, words: string },
  now: Date,
): Promise<void> {
  await tx(async (database) => {
    await database.insert(moneyEntry).values({ id: uuid(), at: now, kind: 'rent', currency, micros: -micros, lineId, words })
    await book({ currency, micros: -micros })
  })
}

/** Moves the balance of a currency by an entry that was made for it, in the same transaction. */
export async function book({ currency, micros }: Money): Promise<void> {
  await once(sql`
    insert into ${moneyAccount} as a (currency, balance_micros) values (${currency}, ${micros}::bigint)
    on conflict (currency) do update set balance_micros = a.balance_micros + excluded.balance_micros`)
}
