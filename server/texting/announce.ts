import { sql } from 'drizzle-orm'
import { ask } from '../db/door'
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

/** The columns of a ShownRow, for a statement in which `told t` are the messages that changed, with SHOWN_JOINS. */
export const SHOWN = sql`
  t.conversation_id, shown_line.colleague_id as line_colleague, shown_line.team_id as line_team,
  (select json_agg(json_build_object('recordId', s.record_id, 'activityId', s.activity_id, 'ownerId', r.owner_id, 'teamId', r.team_id))
    from ${activityOnRecord} s join ${record} r on r.id = s.record_id where s.activity_id = t.activity_id) as shown`

export const SHOWN_JOINS = sql`
  left join ${conversation} shown_in on shown_in.id = t.conversation_id
  left join ${line} shown_line on shown_line.id = shown_in.line_id`

/** A message has changed: its entry looks different on every timeline it is on. */
export function announceShown(rows: ShownRow[]): void {
  for (const row of rows) {
    for (const { recordId, activityId, ownerId, teamId } of row.shown ?? [])
      announce({ kind: 'entry', recordId, activityId }, 'record.see', [{ ownerId, teamId }])
    if (row.conversation_id)
      announce({ kind: 'conversation', conversationId: row.conversation_id }, 'line.answer', [
        lineBelongs({ colleagueId: row.line_colleague, teamId: row.line_team }),
      ])
  }
}

export async function announceMessage(messageId: string): Promise<void> {
  const { rows } = await ask<ShownRow>(sql`select ${SHOWN} from ${message} t ${SHOWN_JOINS} where t.id = ${messageId}::uuid`)
  announceShown(rows)
}
