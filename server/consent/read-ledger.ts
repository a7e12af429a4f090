import { eq, sql } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import type { LedgerEntry } from '~~/shared/record'
import { ask, read } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, consentEntry, line, message, conversation, phone } from '../db/schema'
import { notFound } from '../http/problem'
import { mayReadEntry } from '../reading/entries'
import { authorize } from '../records/one'

/**
 * The ledger of a number, the oldest line first; with the words of texts for those who may read them.
 *
 * @throws Problem 404 for a number on no record that the asker may see
 */
export async function readLedger(asker: Asker, phoneId: string): Promise<LedgerEntry[]> {
  const [found] = await read(database =>
    database.select({ recordId: phone.recordId, e164: phone.e164 }).from(phone).where(eq(phone.id, phoneId)),
  )
  if (!found?.e164) throw notFound('number')
  await authorize(asker, 'record.see', found.recordId)
  const mayReadWords = sql`(e.message_id is null or ${mayReadEntry(asker, sql`m.activity_id`)})`
  const { rows } = await ask<LedgerEntry & Record<string, unknown>>(sql`
    select e.id, ${milliseconds(sql`e.at`)} as at, e.sequence::float8 as sequence, e.kind, e.annuls_id as "annulsId", e.covers, e.how,
      case when ${mayReadWords} then e.words end as words, case when ${mayReadWords} then l.name end as line, c.first_name as by
    from ${consentEntry} e
      left join ${message} m on m.id = e.message_id left join ${conversation} v on v.id = m.conversation_id
      left join ${line} l on l.id = v.line_id
      left join ${colleague} c on c.id = e.colleague_id
    where e.e164 = ${found.e164} order by e.at, e.sequence`)
  return rows
}
