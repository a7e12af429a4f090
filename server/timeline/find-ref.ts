import { sql } from 'drizzle-orm'
import { readRef } from '~~/core/message/ref'
import type { FoundRef } from '~~/shared/find'
import type { Asker } from '~~/shared/permissions'
import { ask } from '../db/door'
import { milliseconds } from '../db/instants'
import { activity, activityContent, activityOnRecord, draft, message, record } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { mayRead } from '../reading/entries'

/** What the asker has begun to write, and will have this reference. */
async function draftWith(asker: Asker, ref: string): Promise<FoundRef | null> {
  const { rows: [begun] } = await ask<{ key: string, text: string }>(sql`
    select key, text from ${draft} where colleague_id = ${asker.id}::uuid and ref = ${ref} limit 1`)
  if (!begun) return null
  const [kind, id] = begun.key.split(' ')
  return { kind: 'draft', ref, text: begun.text, recordId: kind === 'conversation' ? null : id!, conversationId: kind === 'conversation' ? id! : null }
}

/** The text with a reference, on the record where it was said; or that it was mistyped, or that none has it. */
export async function findRef(asker: Asker, typed: string): Promise<FoundRef> {
  const reading = readRef(typed)
  if (!reading.ok) return { kind: reading.reason }
  const { rows: [said] } = await ask<(FoundRef & { kind: 'found' })['said'] & Record<string, unknown>>(sql`
    select a.id, ${milliseconds(sql`a.at`)} as at, a.kind, t.words, r.id as "recordId", r.name as "recordName"
    from ${message} m
    join ${activity} a on a.id = m.activity_id
    left join ${activityContent} t on t.activity_id = a.id
    join ${activityOnRecord} s on s.activity_id = a.id and ${mayRead(asker)}
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    where m.ref = ${reading.ref}
    order by s.via_record_id is not null, r.id limit 1`)
  return said ? { kind: 'found', ref: reading.ref, said } : await draftWith(asker, reading.ref) ?? { kind: 'unknown', ref: reading.ref }
}
