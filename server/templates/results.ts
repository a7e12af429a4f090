import { sql } from 'drizzle-orm'
import type { VersionResult } from '~~/shared/template'
import { ask } from '../db/door'
import { at } from '../db/instants'
import { planned } from '../db/prepared'
import { consentEntry, conversation, message } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { mustSeeTemplate } from './templates'

/** For this long after a text an answer counts as one to it. */
const DAYS = 3

/**
 * What each version of a template did, the newest first: of the texts that left, how many arrived; of those whose
 * three days are over, how many were answered and how many brought an opt-out. Only figures, of texts to anybody.
 */
export async function resultsOf(asker: SignedIn, templateId: string, now: Date): Promise<VersionResult[]> {
  await mustSeeTemplate(asker, templateId)
  const over = at(now.getTime() - DAYS * 86_400_000)
  const within = sql.raw(`interval '${DAYS} days'`)
  const { rows } = await ask<VersionResult & Record<string, unknown>>(planned(sql`
    select m.template_version as version, count(*)::int as sent,
      count(*) filter (where m.state = 'delivered')::int as delivered,
      count(*) filter (where m.state in ('delivered', 'undelivered', 'failed', 'unreported'))::int as settled,
      count(*) filter (where m.handed_at < ${over})::int as waited,
      count(*) filter (where m.handed_at < ${over} and exists (
        select 1 from ${message} i where i.conversation_id = m.conversation_id and i.direction = 'in' and i.made_at > m.handed_at
          and i.made_at <= m.handed_at + ${within}))::int as answered,
      count(*) filter (where m.handed_at < ${over} and exists (
        select 1 from ${consentEntry} e where e.e164 = v.remote and e.kind = 'refused' and e.covers <> 'calls' and e.at > m.handed_at
          and e.at <= m.handed_at + ${within}))::int as "optedOut"
    from ${message} m join ${conversation} v on v.id = m.conversation_id
    where m.template_id = ${templateId}::uuid and m.template_version is not null and m.handed_at is not null
      and m.state not in ('held', 'taken-back', 'waiting')
    group by 1 order by 1 desc`))
  return rows
}
