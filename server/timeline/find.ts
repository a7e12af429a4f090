import { sql } from 'drizzle-orm'
import type { Said } from '~~/shared/find'
import type { Asker } from '~~/shared/permissions'
import { ask } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { planned } from '../db/prepared'
import { activity, activityContent, activityOnRecord, record } from '../db/schema'
import { seesRecord } from '../reading/visible'
import { mayRead } from '../reading/entries'
import { wordsMatch } from '../reading/words'

/** Words that stand in fewer texts than that are looked up at once. */
const RARE = 5_000
const FOUND = 6
/** Newest hits that are looked at: among these, those that may be seen are shown. */
const LOOKED_AT = 300

/** Texts and notes with all of these words in them, the last one perhaps half typed, newest first. */
export async function findSaid(asker: Asker, words: string): Promise<Said[]> {
  const matches = wordsMatch(words)
  if (!matches || words.replace(/[^\p{L}\p{N}]/gu, '').length < 3) return []
  // a rare word is looked up; walking back from the newest until enough are found would read everything that was ever said
  const { rows: some } = await ask<{ id: string }>(planned(sql`select t.activity_id as id from ${activityContent} t where ${matches}
    limit ${sql.raw(String(RARE))}`))
  const which = some.length < RARE ? sql`t.activity_id = any(${uuidArray(some.map(({ id }) => id))})` : matches
  const { rows } = await ask<Said & Record<string, unknown>>(planned(sql`
    with hits as (
      select t.activity_id, t.words from ${activityContent} t
      where ${which}
      order by t.activity_id desc limit ${sql.raw(String(LOOKED_AT))}
    )
    select a.id, ${milliseconds(sql`a.at`)} as at, a.kind, hits.words, r.id as "recordId", r.name as "recordName"
    from hits
    join ${activity} a on a.id = hits.activity_id
    join ${activityOnRecord} s on s.activity_id = a.id and s.via_record_id is null and ${mayRead(asker)}
    join ${record} r on r.id = s.record_id and ${seesRecord(asker, 'r')}
    order by a.at desc, a.id desc limit ${sql.raw(String(FOUND))}`))
  return rows
}
