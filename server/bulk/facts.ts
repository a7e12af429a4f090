import { sql } from 'drizzle-orm'
import type { NumberFacts } from '~~/core/bulk/fate'
import { showRef } from '~~/core/message/ref'
import { ask } from '../db/door'
import { at, milliseconds, uuidArray } from '../db/instants'
import { bulkPerson, consentProposal, conversation, message, numberState, phone, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { personColumns, personJoins, type PersonRow } from '../templates/people'
import { seesRecord } from '../reading/visible'

/** A number with whether we have texted it within the days that count, and whether they wait for an answer on it. */
export type KnownNumber = NumberFacts & { lately: boolean, waits: boolean, typed: string }

export type BulkPersonFacts = PersonRow & {
  zone: string | null
  own_country: string | null
  region: string | null
  wish_from: number | null
  wish_to: number | null
  numbers: KnownNumber[] | null
}

interface Wanted {
  body: string
  lineIds: string[]
  since: Date
  /** Whether they are answered: then their line is the one that waits. */
  answers?: boolean
}

/**
 * All that decides on what somebody gets, for some of a bulk text's people: those that its maker may see.
 *
 * @param lineIds the lines over which it may go
 * @param since whom we have texted since then is pointed out
 */
export async function factsOf(
  asker: SignedIn,
  ids: string[],
  { body, lineIds, since, answers = false }: Wanted,
): Promise<Map<string, BulkPersonFacts>> {
  const { rows } = await ask<BulkPersonFacts>(sql`
    select ${personColumns(asker, body)}, r.zone, r.country as own_country, r.region, r.wish_from, r.wish_to, (
      select json_agg(json_build_object('phoneId', p.id, 'label', p.label, 'typed', p.typed, 'e164', p.e164, 'country', p.country, 'kind', p.kind,
        'unusable', p.unusable is not null, 'optedOut', coalesce(n.texts = 'refused', false),
        'openWish', exists (select 1 from ${consentProposal} w where w.e164 = p.e164 and w.decided_at is null),
        'lastHeardAt', ${milliseconds(sql`n.last_heard_at`)},
        'usualLineId', (select v.line_id from ${conversation} v where v.remote = p.e164 and v.line_id = any(${uuidArray(lineIds)})
          order by ${answers ? sql`v.waits_since is not null desc,` : sql``} v.last_at desc limit 1),
        'waits', ${answers
          ? sql`exists (select 1 from ${conversation} v where v.remote = p.e164 and v.line_id = any(${uuidArray(lineIds)})
          and v.waits_since is not null)`
          : sql`false`},
        'lately', exists (select 1 from ${conversation} v join ${message} m on m.conversation_id = v.id
          where v.remote = p.e164 and m.direction = 'out' and m.made_at >= ${at(since)}
            and m.state not in ('taken-back', 'failed', 'held'))
        ) order by p.position)
      from ${phone} p left join ${numberState} n on n.e164 = p.e164 where p.record_id = r.id) as numbers
    from ${record} r ${personJoins(asker)}
    where r.id = any(${uuidArray(ids)}) and ${seesRecord(asker, 'r')}`)
  return new Map(rows.map(row => [row.id, row]))
}

/** What was chosen and written for somebody alone. */
export interface Own {
  phoneId: string | null
  words: string | null
  /** For which wording of the bulk text. */
  wording: number | null
  /** The reference that is written in their words, where it is still there. */
  ref: string | null
}

/** Those of some people who have something of their own. */
export async function ownOf(bulkId: string, ids: string[]): Promise<Map<string, Own>> {
  const { rows } = await ask<Own & { recordId: string } & Record<string, unknown>>(sql`
    select record_id as "recordId", own_phone_id as "phoneId", own_words as words, own_wording as wording, ref from ${bulkPerson}
    where bulk_id = ${bulkId}::uuid and record_id = any(${uuidArray(ids)}) and (own_phone_id is not null or own_words is not null)`)
  const stillThere = ({ words, ref }: Own) => ref && words?.includes(showRef(ref)) ? ref : null
  return new Map(rows.map(({ recordId, ...own }) => [recordId, { ...own, ref: stillThere(own) }]))
}
