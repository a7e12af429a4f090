import { sql } from 'drizzle-orm'
import { once } from '../db/door'
import { activityOnRecord, conversation, line, message, record } from '../db/schema'
import { announce } from '../live/notices'
import { lineBelongs } from './lines'

/** Where a message shows, and to whom each of these places belongs; null where there is none. */
export type ShownRow = Record<string, unknown> & {
  conversation_id: string | null
  line_colleague: string | null
  line_team: string | null
  shown: { recordId: string, activityId: string, ownerId: string, teamId: string }[] | null
}

/** The columns of a ShownRow, for a statement in which `told` are the messages that changed. */
export const SHOWN = sql`
  (select conversation_id from told limit 1) as conversation_id,
  (select l.colleague_id from told join ${conversation} v on v.id = told.conversation_id join ${line} l on l.id = v.line_id limit 1) as line_colleague,
  (select l.team_id from told join ${conversation} v on v.id = told.conversation_id join ${line} l on l.id = v.line_id limit 1) as line_team,
  (select json_agg(json_build_object('recordId', s.record_id, 'activityId', s.activity_id, 'ownerId', r.owner_id, 'teamId', r.team_id))
    from told join ${activityOnRecord} s on s.activity_id = told.activity_id join ${record} r on r.id = s.record_id) as shown`

/** A message has changed: its entry looks different on every timeline it is on. */
export function announceShown(rows: ShownRow[]): void {
  for (const row of rows) {
    for (const { recordId, activityId, ownerId, teamId } of row.shown ?? []) announce({ kind: 'entry', recordId, activityId }, 'record.see', [{ ownerId, teamId }])
    if (row.conversation_id) announce({ kind: 'conversation', conversationId: row.conversation_id }, 'line.answer', [lineBelongs({ colleagueId: row.line_colleague, teamId: row.line_team })])
  }
}

export async function announceMessage(messageId: string): Promise<void> {
  const { rows } = await once<ShownRow>(sql`with told as (select id, activity_id, conversation_id from ${message} where id = ${messageId}::uuid) select ${SHOWN}`)
  announceShown(rows)
}
