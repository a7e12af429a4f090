import { and, desc, eq, lte, sql } from 'drizzle-orm'
import type { DraftForm } from '~~/shared/schemas/texting'
import type { KeptDraft } from '~~/shared/texting'
import { read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { conversation, draft, line, message, record } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'

/** What I have written and not sent, the latest first, each with whom it is for. */
export async function draftsOf(asker: SignedIn): Promise<KeptDraft[]> {
  return read(database =>
    database
      .select({
        key: draft.key,
        text: draft.text,
        templateId: draft.templateId,
        templateVersion: draft.templateVersion,
        ref: draft.ref,
        pictureIds: draft.pictureIds,
        at: milliseconds(draft.at),
        recordId: record.id,
        name: sql<string | null>`coalesce(${record.name}, ${conversation.remote})`,
      })
      .from(draft)
      .leftJoin(
        record,
        and(
          sql`${draft.key} in ('record ' || ${record.id}, 'note ' || ${record.id})`,
          visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId }),
        ),
      )
      .leftJoin(
        conversation,
        and(
          sql`${draft.key} = 'conversation ' || ${conversation.id}`,
          sql`${conversation.lineId} in (select l.id
      from ${line} l where ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })})`,
        ),
      )
      .where(eq(draft.colleagueId, asker.id))
      .orderBy(desc(draft.at))
      .limit(MOST),
  )
}

const MOST = 200

/**
 * Keeps a draft, unless a later one is there: another window may have been quicker. An empty one is forgotten, and so
 * is one that has left as a text meanwhile, or it would seem to be still unsent.
 */
export async function keepDraft(asker: SignedIn, { key, at, ...words }: DraftForm): Promise<void> {
  const values = { ...words, at: new Date(at) }
  await tx(async database => (words.text === '' && words.pictureIds.length === 0) || await hasLeft(words.ref)
    ? database.delete(draft).where(and(eq(draft.colleagueId, asker.id), eq(draft.key, key), lte(draft.at, values.at)))
    : database.insert(draft).values({ colleagueId: asker.id, key, ...values })
        .onConflictDoUpdate({ target: [draft.colleagueId, draft.key], set: values, setWhere: lte(draft.at, values.at) }))
}

/** What has become a text is no draft any more. */
export async function dropDraft(colleagueId: string, ref: string): Promise<void> {
  await tx(database => database.delete(draft).where(and(eq(draft.colleagueId, colleagueId), eq(draft.ref, ref))))
}

async function hasLeft(ref: string): Promise<boolean> {
  const [found] = await read(database => database.select({ id: message.id }).from(message).where(eq(message.ref, ref)))
  return found !== undefined
}
