import { sql, type SQL } from 'drizzle-orm'
import type { InboxTexts, TextShelf } from '~~/shared/inbox'
import type { InboxTextsQuery } from '~~/shared/schemas/inbox'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { planned } from '../db/prepared'
import { activity, conversation, line, message, phone, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord, visible } from '../reading/visible'
import { entryOf, SLIP, SLIP_JOINS, type EntryRow } from './read'

const PAGE = 40

const WHICH: Record<TextShelf, SQL> = {
  received: sql`w.direction = 'in'`,
  sent: sql`w.direction = 'out' and w.state not in ('waiting', 'held', 'failed', 'undelivered', 'not-known', 'taken-back')`,
  scheduled: sql`w.direction = 'out' and w.state = 'waiting' and w.wall_time is not null`,
  held: sql`w.direction = 'out' and w.state = 'held'`,
  failed: sql`w.direction = 'out' and w.state in ('failed', 'undelivered', 'not-known')`,
}

/** The texts of the lines that I answer, by what became of them, the newest first, each with whom it is with. */
export async function readTexts(asker: SignedIn, { what, beforeAt, beforeId }: InboxTextsQuery): Promise<InboxTexts> {
  const under = beforeAt !== null && beforeId !== null
    ? sql`(w.made_at, w.id) < (${at(new Date(beforeAt))}, ${beforeId}::uuid)`
    : sql`true`
  const { rows } = await ask<EntryRow & { holder: string | null }>(planned(sql`
    with chosen as (
      select w.id, w.activity_id, w.made_at from ${message} w
      join ${conversation} own on own.id = w.conversation_id
      join ${line} mine on mine.id = own.line_id and ${visible(asker, 'line.answer', { owner: sql`mine.colleague_id`, team: sql`mine.team_id` })}
      where ${WHICH[what]} and ${under} order by w.made_at desc, w.id desc limit ${sql.raw(String(PAGE + 1))}
    )
    select ${SLIP}, false as by_hand, null as via_id, null as via_name, null as meant_for,
      (select r.name from ${phone} ph join ${record} r on r.id = ph.record_id and ${seesRecord(asker, 'r')} where ph.e164 = v.remote
        order by r.name limit 1) as holder
    from chosen join ${activity} a on a.id = chosen.activity_id ${SLIP_JOINS}
    order by chosen.made_at desc, chosen.id desc`))
  return {
    texts: rows.slice(0, PAGE).map(row => ({ entry: entryOf(row), name: row.holder, remote: row.remote! })),
    more: rows.length > PAGE,
  }
}
