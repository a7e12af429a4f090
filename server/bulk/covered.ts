import { sql } from 'drizzle-orm'
import { covers, leftIn, type Purse } from '~~/core/money/purse'
import { sayMoney } from '~~/core/numbers/money'
import { ask } from '../db/door'
import { bulkPerson, bulkText, carrierPrice, line, moneyAccount } from '../db/schema'
import { conflict } from '../http/problem'

/**
 * Whether what is there covers all those who are still to get a bulk text. It is asked again with each of them: others spend meanwhile.
 *
 * @throws Problem 409 `no-balance`
 */
export async function mustCoverAll(bulkId: string): Promise<void> {
  const { rows } = await ask<Purse & { currency: string, micros: number } & Record<string, unknown>>(sql`
    select a.currency, a.prepaid, a.balance_micros::float8 as "balanceMicros", a.held_micros::float8 as "heldMicros",
      sum(p.people * case when b.picture_ids = '[]' then c.micros_per_part * coalesce(p.parts, 1) else c.micros_per_picture end)::float8 as micros
    from (select line_id, parts, count(*) as people from ${bulkPerson} where bulk_id = ${bulkId}::uuid and standing = 'ready' group by 1, 2) p
      join ${bulkText} b on b.id = ${bulkId}::uuid join ${line} l on l.id = p.line_id
      join ${carrierPrice} c on c.carrier = l.carrier and c.country = l.country join ${moneyAccount} a on a.currency = c.currency
    group by 1, 2, 3, 4`)
  for (const { currency, micros, ...purse } of rows) {
    if (covers(purse, micros)) continue
    throw conflict(
      'no-balance',
      'It cannot be paid',
      `All of it costs ${sayMoney({ micros, currency })}, and ${sayMoney({ micros: Math.max(0, leftIn(purse)), currency })} is left to pay with. `
      + 'Take people out, or ask an admin to add to the balance first.',
      { currency },
    )
  }
}
