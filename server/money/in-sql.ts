import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { carrierPrice, conversation, line, moneyAccount, moneyEntry, moneyHold } from '../db/schema'

interface Priced { lineId: SQLWrapper, pictures: SQLWrapper, parts: SQLWrapper, always: SQLWrapper }

/**
 * Steps of the statement that queues a text, as names of steps:
 * - `priced`: what it will cost by its carrier's list; no row where that has told no price, or nobody counts its currency
 * - `purse`: that, where what is there covers it. The account is locked from here on, so that no two promise the same money
 *
 * @param always whether it leaves whatever there is
 */
export const covering = ({ lineId, pictures, parts, always }: Priced): SQL => sql`
  priced as (
    select p.* from (
      select c.currency, (case when ${pictures} > 0 then c.micros_per_picture else c.micros_per_part * ${parts} end)::bigint as micros
      from ${line} l join ${carrierPrice} c on c.carrier = l.carrier and c.country = l.country
        join ${moneyAccount} k on k.currency = c.currency where l.id = ${lineId}
    ) p where p.micros is not null
  ), purse as (
    select a.currency, priced.micros from priced join ${moneyAccount} a on a.currency = priced.currency
    where not a.prepaid or ${always} or a.balance_micros - a.held_micros >= priced.micros
    for update of a
  )`

/** A condition: it can be paid, or nobody knows what it costs. */
export const IS_COVERED = sql`(not exists (select 1 from priced) or exists (select 1 from purse))`

interface Holding { messageId: SQLWrapper, colleagueId: SQLWrapper, lineId: SQLWrapper, at: SQLWrapper }

/** Steps after those: what it will cost is held for a text, by the step `told`, which has a row where it is written. */
export const holding = ({ messageId, colleagueId, lineId, at }: Holding): SQL => sql`
  held as (
    insert into ${moneyHold} (message_id, currency, micros, colleague_id, line_id, at)
    select ${messageId}, purse.currency, purse.micros, ${colleagueId}, ${lineId}, ${at} from purse where exists (select 1 from told)
    returning currency, micros
  ), promised as (
    update ${moneyAccount} a set held_micros = a.held_micros + held.micros from held where a.currency = held.currency
  )`

/**
 * Steps of the statement that takes carriers' answers: what each text has cost goes into the ledger, or what was held for it
 * where its carrier has told no charge; what was held is free again.
 *
 * @param told the step with texts that were accepted: `id`, `conversation_id`, `author_id`, `at`, `entry_id`, `cost_micros`, `currency`
 */
export const spending = (told: SQL): SQL => sql`
  freed as (
    delete from ${moneyHold} h using ${told} t where h.message_id = t.id returning h.message_id, h.currency, h.micros
  ), spent as (
    insert into ${moneyEntry} (id, at, kind, currency, micros, message_id, line_id, colleague_id)
    select t.entry_id, t.at, 'text', coalesce(t.currency, h.currency), -coalesce(t.cost_micros, h.micros), t.id, v.line_id, t.author_id
    from ${told} t join ${conversation} v on v.id = t.conversation_id left join ${moneyHold} h on h.message_id = t.id
    where coalesce(t.cost_micros, h.micros) is not null
    on conflict (message_id) where kind = 'text' do nothing
    returning currency, micros
  ), booked as (
    insert into ${moneyAccount} as a (currency, balance_micros)
    select c.currency, (select coalesce(sum(micros), 0) from spent where spent.currency = c.currency)
    from (select currency from spent union select currency from freed) c
    order by 1
    on conflict (currency) do update set balance_micros = a.balance_micros + excluded.balance_micros,
      held_micros = a.held_micros - (select coalesce(sum(micros), 0) from freed where freed.currency = a.currency)
  )`
