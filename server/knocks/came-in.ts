import { and, eq, isNotNull } from 'drizzle-orm'
import { read } from '../db/door'
import { activityContent, conversation, line } from '../db/schema'
import { noteAnswer } from '../bulk/answers'
import { settle, type Claim, type Handler } from '../jobs/outbox'
import { handOut } from '../texting/hand-out'
import { knockAt } from './knock'
import { KNOCK_SOURCES } from './registry'
import type { CameIn } from './source'
import { ownersOf } from './whom'

/** Something came in: it goes to whose turn it is, and knocks for each kind of thing that it is. What was answered is left alone. */
export const seeToWhatCameIn: Handler = async (claims, now) => claims.map(claim => () => settle(claim, now(), async () => {
  if (claim.payload.what === 'text') await noteAnswer(String(claim.payload.conversationId), new Date(Number(claim.payload.at)))
  const found = await whatCameIn(claim)
  if (!found) return 'done'
  const came = { ...found, ...await handOut(found, now()) }
  for (const [kind, { cameIn }] of KNOCK_SOURCES) {
    if (!await cameIn?.(came)) continue
    const whom = await ownersOf(came)
    await knockAt({
      kind,
      about: { conversationId: came.conversation.id },
      words: came.words,
      at: came.at,
      step: 'owner',
      whom: whom.map(({ id }) => id),
    }, now())
  }
  return 'done'
}))

async function whatCameIn({ payload }: Claim): Promise<CameIn | null> {
  const [found] = await read(database => database
    .select({ conversation, line, words: activityContent.words })
    .from(conversation)
    .innerJoin(line, eq(line.id, conversation.lineId))
    .leftJoin(activityContent, eq(activityContent.activityId, String(payload.activityId)))
    .where(and(eq(conversation.id, String(payload.conversationId)), isNotNull(conversation.waitsSince))))
  const at = new Date(Number(payload.at))
  if (!found || found.conversation.waitsSince! > at) return null
  const what = payload.what as CameIn['what']
  // notes of a call are on its entry too: they are not what the caller said
  return { ...found, what, words: what === 'text' ? found.words ?? '' : '', at }
}
