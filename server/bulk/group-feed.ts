import { sql, type SQL } from 'drizzle-orm'
import type { GroupFeed, GroupFeedItem } from '~~/shared/groups'
import type { GroupFeedQuery } from '~~/shared/schemas/group'
import { can } from '~~/shared/permissions'
import { ask } from '../db/door'
import { at, milliseconds } from '../db/instants'
import { activityContent, bulkPerson, bulkText, colleague, conversation, message, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { mayReadEntry } from '../reading/entries'
import { seesRecord } from '../reading/visible'
import { mustFindGroup } from '../records/groups/one'
import { ANSWERS_WITHIN } from './answers'

const SIZE = 40
/** Of the bulk texts `b` of a group: each that went out, `m`, and what came in from the same number after it, over whichever line, `i`. */
const CAME_IN = sql`${bulkText} b join ${bulkPerson} p on p.bulk_id = b.id and p.standing = 'texted'
  join ${message} m on m.id = p.id
  join ${conversation} v on v.remote = p.e164
  join ${message} i on i.conversation_id = v.id and i.direction = 'in'
    and i.made_at > m.handed_at and i.made_at < m.handed_at + ${ANSWERS_WITHIN}`

/**
 * What was sent to a group and what came back, the newest first: its bulk texts, and of the answers those that the asker may read.
 */
export async function readGroupFeed(asker: SignedIn, groupId: string, before: GroupFeedQuery, now: Date): Promise<GroupFeed> {
  const { beforeAt, beforeId } = before
  await mustFindGroup(groupId)
  // several may be of one moment: which of them were shown, their ids tell
  const until = sql`(${at(new Date(beforeAt ?? now.getTime() + 1))}, ${beforeId ?? '00000000-0000-0000-0000-000000000000'}::uuid)`
  const all = [...await sentTo(asker, groupId, until), ...await cameFrom(asker, groupId, until)]
    .sort((a, b) => b.at - a.at || (idOf(b) > idOf(a) ? 1 : -1))
  const items = all.slice(0, SIZE)
  const last = items.at(-1)
  return { items, next: last && all.length > SIZE ? { at: last.at, id: idOf(last) } : null }
}

const idOf = (item: GroupFeedItem): string => item.kind === 'sent' ? item.bulkId : item.activityId

type SentRow = Record<string, unknown> & Omit<Extract<GroupFeedItem, { kind: 'sent' }>, 'kind' | 'mayOpen'> & { madeBy: string }

async function sentTo(asker: SignedIn, groupId: string, until: SQL): Promise<GroupFeedItem[]> {
  const { rows } = await ask<SentRow>(sql`
    select ${milliseconds(sql`b.started_at`)} as at, b.id as "bulkId", b.name, b.made_by as "madeBy", c.first_name as "by",
      (select count(*)::int from ${bulkPerson} p where p.bulk_id = b.id and p.standing = 'texted') as texted,
      (select count(*)::int from ${bulkPerson} p where p.bulk_id = b.id and p.answered_at is not null) as answered
    from ${bulkText} b join ${colleague} c on c.id = b.made_by
    where b.group_id = ${groupId}::uuid and (b.started_at, b.id) < ${until}
    order by b.started_at desc, b.id desc limit ${sql.raw(String(SIZE + 1))}`)
  return rows.map(({ madeBy, ...row }) => ({ ...row, kind: 'sent', mayOpen: can(asker, 'bulk.work', { ownerId: madeBy }) }))
}

type CameRow = Record<string, unknown> & Omit<Extract<GroupFeedItem, { kind: 'came-in' }>, 'kind'>

async function cameFrom(asker: SignedIn, groupId: string, until: SQL): Promise<GroupFeedItem[]> {
  const { rows } = await ask<CameRow>(sql`
    select ${milliseconds(sql`i.made_at`)} as at, i.activity_id as "activityId", i.record_id as "recordId", i.name, t.words from (
      select distinct on (i.made_at, i.activity_id) i.made_at, i.activity_id, p.record_id, r.name from ${CAME_IN}
        join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
      where b.group_id = ${groupId}::uuid and (i.made_at, i.activity_id) < ${until}
      order by i.made_at desc, i.activity_id desc limit ${sql.raw(String(10 * SIZE))}
    ) i left join ${activityContent} t on t.activity_id = i.activity_id
    where ${mayReadEntry(asker, sql`i.activity_id`)}
    order by i.made_at desc, i.activity_id desc limit ${sql.raw(String(SIZE + 1))}`)
  return rows.map(row => ({ ...row, kind: 'came-in' }))
}
