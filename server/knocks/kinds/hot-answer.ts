import { sql } from 'drizzle-orm'
import { ask } from '../../db/door'
import { at, textArray } from '../../db/instants'
import { message, record } from '../../db/schema'
import { withWhom } from '../../activity/with-whom'
import { readHouseRules } from '../../identity/house-rules'
import type { KnockSource } from '../source'

/** The first answer of a lead that the firm calls hot, by its tags. */
export const hotAnswer: KnockSource = {
  async cameIn({ what, conversation, line, at: when }) {
    const { hotTags } = await readHouseRules()
    if (what !== 'text' || hotTags.length === 0) return false
    const { with: records } = await withWhom(line.id, conversation.remote)
    const { rows } = await ask(sql`
      select 1 from ${record} r where r.id = any(${sql.param(records)}::uuid[]) and r.module = 'lead'
        and exists (select 1 from jsonb_array_elements_text(to_jsonb(r.tags)) t (tag) where lower(t.tag) = any(${textArray(hotTags.map(tag => tag.toLowerCase()))}))
        and not exists (select 1 from ${message} m where m.conversation_id = ${conversation.id}::uuid and m.direction = 'in'
          and m.made_at < ${at(when)})`)
    return rows.length > 0
  },
}
