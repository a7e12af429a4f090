import { sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { touchContact } from '../activity/contact'
import { showOnRecords } from '../activity/append'
import { beWith } from '../activity/with-whom'
import { callIsWith } from '../calling/with'
import { ask, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { activity, activityOnRecord, call, conversation, line, message, phone, record } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { mayReadEntry } from '../reading/entries'
import { authorize } from '../records/one'

interface Contact { at: number, lineId: string, privateLineId: string | null, remote: string }
interface With { id: string, ownerId: string, teamId: string }

/**
 * Several records have one number, and somebody says for whom of them a text or a call was. It is with that one from then on,
 * and so is what comes next from there; on the others it shows besides. Saying it of another one later is how it is taken back.
 *
 * @throws Problem 404 for an entry or a record that may not be seen; 403 if it is with somebody whom the asker may not change;
 * 422 if the record has not that number
 */
export async function sayForWhom(asker: SignedIn, entryId: string, recordId: string, now: Date): Promise<void> {
  await tx(async () => {
    const { at, lineId, privateLineId, remote } = await contactOf(asker, entryId)
    const target = await authorize(asker, 'record.edit', recordId)
    const { rows: holds } = await ask(sql`select 1 from ${phone} where record_id = ${recordId}::uuid and e164 = ${remote}`)
    if (holds.length === 0) throw badInput({ recordId: `${target.name} does not have the number it came from or went to.` })
    const before = await isWith(entryId)
    if (before.some(one => !can(asker, 'record.edit', one)))
      throw notAllowed('take it from the record that it is with; whoever leads both teams may say for whom it was')
    await beWith(entryId, recordId, lineId)
    await showOnRecords({ id: entryId, at: new Date(at), privateLineId }, [recordId])
    await callIsWith(entryId, recordId)
    await touchContact(entryId, new Date(at))
    await note('entry-meant', asker.id, now, { activityId: entryId, from: before.map(one => one.id), to: recordId })
    for (const one of [...before, target])
      announce({ kind: 'entry', recordId: one.id, activityId: entryId }, 'record.see', [{ ownerId: one.ownerId, teamId: one.teamId }])
  })
}

/** A text or a call that the asker may read: with which number it was, and over which line. */
async function contactOf(asker: SignedIn, entryId: string): Promise<Contact> {
  const { rows: [found] } = await ask<Contact & Record<string, unknown>>(sql`
    select ${milliseconds(sql`a.at`)} as at, l.id as "lineId", case when l.private then l.id end as "privateLineId",
      coalesce(v.remote, k.remote) as remote
    from ${activity} a
      left join ${message} m on m.activity_id = a.id left join ${conversation} v on v.id = m.conversation_id
      left join ${call} k on k.activity_id = a.id
      join ${line} l on l.id = coalesce(v.line_id, k.line_id)
    where a.id = ${entryId}::uuid and ${mayReadEntry(asker, sql`a.id`)}`)
  if (!found) throw notFound('entry')
  return found
}

/** The records that an entry is with now. */
async function isWith(entryId: string): Promise<With[]> {
  const { rows } = await ask<With & Record<string, unknown>>(sql`
    select r.id, r.owner_id as "ownerId", r.team_id as "teamId" from ${activityOnRecord} s join ${record} r on r.id = s.record_id
    where s.activity_id = ${entryId}::uuid and s.via_record_id is null and s.along_line_id is null`)
  return rows
}
