import { sql } from 'drizzle-orm'
import type { BulkResults } from '~~/shared/bulk-texts'
import type { MessageState } from '~~/core/message/states'
import { ask, tx } from '../db/door'
import { textArray } from '../db/instants'
import { bulkPerson, consentEntry, message, numberState } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { ANSWERS_WITHIN, ANSWERS_WITHIN_DAYS } from './answers'
import { mustSeeBulk } from './one'

const NOT_ARRIVED: MessageState[] = ['failed', 'undelivered', 'held', 'not-known']

interface Counted extends Record<string, unknown> {
  texted: number
  answered: number
  optedOut: number
  medianMs: number | null
  micros: number | null
  currencies: number
  currency: string | null
  held: number
  heldWrote: number
}

/**
 * What became of a bulk text: what did not arrive, who answered and how fast, who wants no more of it, and what
 * those did who were held back. Nobody counts who was not meant to get it.
 */
export async function readResults(asker: SignedIn, id: string): Promise<BulkResults> {
  return tx(async () => {
    await mustSeeBulk(asker, id)
    const { rows: [found] } = await ask<Counted>(sql`
      select count(*) filter (where p.standing = 'texted' and m.handed_at is not null)::int as texted,
        count(*) filter (where p.standing = 'texted' and p.answered_at is not null)::int as answered,
        count(*) filter (where e.at > m.handed_at and e.at <= m.handed_at + ${ANSWERS_WITHIN})::int as "optedOut",
        (percentile_cont(0.5) within group (order by extract(epoch from p.answered_at - m.handed_at) * 1000)
          filter (where p.standing = 'texted' and p.answer_noted_by is null))::float8 as "medianMs",
        sum(m.cost_micros)::float8 as micros, count(distinct m.currency)::int as currencies, min(m.currency) as currency,
        count(*) filter (where p.standing = 'held-out')::int as held,
        count(*) filter (where p.standing = 'held-out' and p.answered_at is not null)::int as "heldWrote"
      from ${bulkPerson} p left join ${message} m on m.id = p.id
        left join ${numberState} n on n.e164 = p.e164 and n.texts = 'refused' left join ${consentEntry} e on e.id = n.texts_entry_id
      where p.bulk_id = ${id}::uuid and p.standing in ('texted', 'held-out')`)
    const { rows: failed } = await ask<BulkResults['failed'][number] & Record<string, unknown>>(sql`
      select m.state, m.code, count(*)::int as people from ${bulkPerson} p join ${message} m on m.id = p.id
      where p.bulk_id = ${id}::uuid and p.standing = 'texted' and m.state = any(${textArray(NOT_ARRIVED)}) group by 1, 2 order by 3 desc`)
    const { texted, answered, medianMs, micros, currencies, currency, held, heldWrote } = found!
    return {
      failed,
      answered: { hits: answered, of: texted },
      optedOut: { hits: found!.optedOut, of: texted },
      medianMs,
      cost: currencies === 1 && currency ? { micros: micros ?? 0, currency } : null,
      heldOut: held > 0 ? { hits: heldWrote, of: held } : null,
      days: ANSWERS_WITHIN_DAYS,
    }
  })
}
