import { isNotNull, sql } from 'drizzle-orm'
import { once, read, tx } from '../db/door'
import { at } from '../db/instants'
import { colleague, conversation, line, mailedWait, phone, record } from '../db/schema'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { MAIL_WAITING } from '../jobs/kinds'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { visible } from '../reading/visible'
import { waitingLetter } from './letter'
import { thePost } from './post'

const MINUTE = 60_000
const AT_ONCE = 200
/** While the mail server is away it is asked again so soon, and after so long the mail would be of no use any more. */
const AGAIN_MS = MINUTE
const USELESS_AFTER_MS = 4 * 3_600_000

/**
 * Finds who has waited for as long as the colleague who owes the answer lets them without hearing of it, and mails each
 * colleague once for each wait: one mail for all that are found together.
 */
export async function mailByTheClock(now: Date): Promise<void> {
  if (!thePost()) return
  const chosen = await read(database =>
    database.select({ id: colleague.id, minutes: colleague.mailMinutes }).from(colleague).where(isNotNull(colleague.mailMinutes)))
  for (const { id, minutes } of chosen) {
    const asker = await colleagueAtWork(id)
    if (asker) await mailOnce(asker, new Date(now.getTime() - minutes! * MINUTE), now)
  }
}

/** Whose answer it is to give: whoever has it; else whose line it is, or whose record; else all who answer it. */
const isMine = ({ id }: SignedIn) => sql`(v.assignee_id = ${id}::uuid or (v.assignee_id is null and (l.colleague_id = ${id}::uuid
  or exists (select 1 from ${phone} p join ${record} r on r.id = p.record_id where p.e164 = v.remote and r.owner_id = ${id}::uuid)
  or (l.colleague_id is null and not exists (select 1 from ${phone} p where p.e164 = v.remote)))))`

async function mailOnce(asker: SignedIn, until: Date, now: Date): Promise<void> {
  await tx(async () => {
    const { rows } = await once<{ id: string }>(sql`
      insert into ${mailedWait} (colleague_id, conversation_id, since, at)
      select ${asker.id}::uuid, v.id, v.waits_since, ${at(now)} from ${conversation} v join ${line} l on l.id = v.line_id
      where v.waits_since <= ${at(until)} and ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })} and ${isMine(asker)}
        and not exists (select 1 from ${mailedWait} m where m.colleague_id = ${asker.id}::uuid and m.conversation_id = v.id and m.since = v.waits_since)
      order by v.waits_since limit ${AT_ONCE}
      on conflict do nothing returning conversation_id as id`)
    if (rows.length === 0) return
    const conversationIds = rows.map(({ id }) => id)
    const key = `${asker.id} ${conversationIds[0]} ${now.getTime()}`
    await addJob({ kind: MAIL_WAITING, key, payload: { colleagueId: asker.id, conversationIds }, dueAt: now })
  })
}

/** Mails leave outside of any transaction. Of what was answered meanwhile nothing is said. */
export const mailWaiting: Handler = async (claims, now) => claims.map(claim => async () => {
  const outcome = await send(claim, now())
  const useless = now().getTime() - claim.orderAt.getTime() > USELESS_AFTER_MS
  return settle(claim, now(), async () => outcome === 'away' && !useless ? { dueAt: new Date(now().getTime() + AGAIN_MS) } : 'done')
})

async function send({ id, payload }: Claim, now: Date) {
  const post = thePost()
  const to = await colleagueAtWork(String(payload.colleagueId))
  const letter = post && to && await waitingLetter(id, to, payload.conversationIds as string[], post.home, now)
  return letter ? post.send(letter) : 'nothing'
}
