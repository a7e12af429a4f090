import { sql, type SQL } from 'drizzle-orm'
import { addDays, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { kindsFrom, kindsOf } from '~~/core/timeline/groups'
import type { Sieve } from '~~/shared/schemas/timeline'
import { at } from '../db/instants'
import { activityContent, call, conversation, message } from '../db/schema'
import { wordsMatch } from '../reading/words'
import { isKind } from '../reading/kinds'

/** Whether anything is left out at all. */
export const isSifted = ({ groups, from, colleagueId, lineId, since, until, words }: Sieve): boolean =>
  groups.length > 0 || !!(from || colleagueId || lineId || since || until || words)

/**
 * What a reader has narrowed a timeline to, as a condition on its rows `s` and their entries `a`.
 *
 * @param zone IANA name by whose clock days begin and end
 */
export function sifted({ groups, from, colleagueId, lineId, since, until, words }: Sieve, zone: string): SQL {
  const rules = zoneRules(zone)!
  const matches = wordsMatch(words)
  const conditions = [
    groups.length > 0 && isKind(sql`a.kind`, kindsOf(groups)),
    from && isKind(sql`a.kind`, kindsFrom(from)),
    colleagueId && sql`a.colleague_id = ${colleagueId}::uuid`,
    lineId && wentOver(lineId),
    since && sql`s.at >= ${at(dayStart(rules, since))}`,
    until && sql`s.at < ${at(dayStart(rules, addDays(until, 1)))}`,
    matches && sql`exists (select 1 from ${activityContent} t where t.activity_id = s.activity_id and ${matches})`,
  ].filter(condition => condition instanceof Object)
  return conditions.length > 0 ? sql.join(conditions, sql` and `) : sql`true`
}

const wentOver = (lineId: string): SQL => sql`(
  exists (select 1 from ${message} o join ${conversation} ov on ov.id = o.conversation_id
    where o.activity_id = s.activity_id and ov.line_id = ${lineId}::uuid)
  or exists (select 1 from ${call} o where o.activity_id = s.activity_id and o.line_id = ${lineId}::uuid))`
