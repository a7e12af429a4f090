import { sql } from 'drizzle-orm'
import { isMatterModule } from '~~/shared/modules'
import { ask, once, tx } from '../db/door'
import { activityOnRecord, message, record } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { announce } from '../live/notices'
import { authorize } from '../records/one'
import { PAGE } from './read'
import { isShownByHand, isTakenOff } from '../activity/in-sql'
import { mayRead } from '../reading/entries'

/** A long conversation is shown with so many of its newest texts. */
const MOST = 2_000

/**
 * Shows an entry on a deal, a job or a case as well, with whom it came from; or with it the whole conversation
 * so far to which it belongs. Doing it again shows what came since, and changes nothing else.
 *
 * @throws Problem 404 for an entry that the asker may not see; 422 if the record takes none
 */
export async function showOnMatter(
  asker: SignedIn,
  entryId: string,
  { recordId, whole }: { recordId: string, whole: boolean },
  now: Date,
): Promise<void> {
  await tx(async () => {
    const matter = await authorize(asker, 'record.edit', recordId)
    if (!isMatterModule(matter.module)) throw badInput({ recordId: 'Choose a deal, a job or a case.' })
    const { rows: seen } = await once<{ activity_id: string }>(sql`
      ${isShownByHand(sql`select ${recordId}::uuid, at, activity_id, record_id, private_line_id, along_line_id from (
        select distinct on (s.at, s.activity_id) s.*
        from ${activityOnRecord} s
        join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
        where s.activity_id = any(array(${whole ? conversationOf(entryId) : sql`select ${entryId}::uuid`}))
          and s.via_record_id is null and s.record_id <> ${recordId}::uuid and ${mayRead(asker)}
        order by s.at desc, s.activity_id, r.id limit ${MOST}
      ) shown`)}`)
    if (seen.length === 0 && !(await showsAlready(asker, entryId, recordId))) throw notFound('entry')
    if (seen.length === 0) return
    await note('entry-shown-on', asker.id, now, { activityId: entryId, recordId, entries: seen.length })
    for (const { activity_id: activityId } of seen.slice(0, PAGE)) announce({ kind: 'entry', recordId, activityId }, 'record.see', [matter])
  })
}

/**
 * Takes it off there again, or all of its conversation that was shown there by hand; what is there for another reason stays.
 *
 * @throws Problem 404 for a record that the asker may not see, 403 for one that they may not change
 */
export async function takeOffMatter(
  asker: SignedIn,
  entryId: string,
  { recordId, whole }: { recordId: string, whole: boolean },
  now: Date,
): Promise<void> {
  await tx(async () => {
    const matter = await authorize(asker, 'record.edit', recordId)
    const { rows } = await once<{ activity_id: string }>(isTakenOff(recordId, whole ? conversationOf(entryId) : sql`select ${entryId}::uuid`))
    if (rows.length === 0) return
    await note('entry-taken-off', asker.id, now, { activityId: entryId, recordId, entries: rows.length })
    announce({ kind: 'record', recordId }, 'record.see', [matter])
  })
}

/** All entries of the conversation in which one is a text; that one alone where it is none. */
const conversationOf = (entryId: string) => sql`
  select own.activity_id from ${message} own where own.conversation_id = (select m.conversation_id from ${message} m
    where m.activity_id = ${entryId}::uuid)
  union select ${entryId}::uuid`

/** Whether it showed there before; then asking for it once more is no mistake. */
async function showsAlready(asker: SignedIn, entryId: string, recordId: string): Promise<boolean> {
  const { rows } = await ask(sql`
    select 1 from ${activityOnRecord} s where s.activity_id = ${entryId}::uuid and s.record_id = ${recordId}::uuid and ${mayRead(asker)}`)
  return rows.length > 0
}
