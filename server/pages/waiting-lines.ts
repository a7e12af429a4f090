import { sql } from 'drizzle-orm'
import type { LineWaiting } from '~~/shared/today'
import { ask } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, conversation, line, team } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'

/** Who waits for an answer, by line, of the lines that a lead answers for: the one on which somebody waits longest on top. */
export async function waitingByLine(asker: SignedIn): Promise<LineWaiting[]> {
  const { rows } = await ask<LineWaiting & Record<string, unknown>>(sql`
    select l.id, l.name, coalesce(t.name, owner.name) as whose, w.waiting, w.nobody as "withNobody", ${milliseconds(sql`w.oldest`)} as oldest
    from ${line} l
    join (
      select v.line_id, count(*)::int as waiting, count(*) filter (where v.assignee_id is null)::int as nobody, min(v.waits_since) as oldest
      from ${conversation} v where v.waits_since is not null group by v.line_id
    ) w on w.line_id = l.id
    left join ${team} t on t.id = l.team_id left join ${colleague} owner on owner.id = l.colleague_id
    where ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
    order by w.oldest, l.name collate "und-x-icu"`)
  return rows
}
