import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { ComposerStart } from '~~/shared/composer'
import { isPersonModule } from '~~/shared/modules'
import { ask, tx } from '../db/door'
import { milliseconds, textArray } from '../db/instants'
import { colleague, conversation, line, message, phone } from '../db/schema'
import { firmName } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { authorize } from '../records/one'
import { peopleOf } from '../records/related'
import { mayReadEntry } from '../reading/entries'
import { visible } from '../reading/visible'
import { notFound } from '../http/problem'
import { linesOf } from './lines'

/** What the composer needs for a record: my lines, and the one used last with each of its numbers and of its people's. */
export async function startComposer(asker: SignedIn, recordId: string, now: Date): Promise<ComposerStart> {
  return tx(async (database) => {
    const found = await authorize(asker, 'record.see', recordId)
    const holders = [recordId, ...isPersonModule(found.module) ? [] : (await peopleOf(asker, found)).map(({ id }) => id)]
    const lines = await linesOf(asker)
    const numbers = (await database.select({ e164: phone.e164 }).from(phone).where(inArray(phone.recordId, holders))).flatMap(
      row => row.e164 ?? [],
    )
    const used
      = numbers.length === 0
        ? []
        : await database.select().from(conversation).where(inArray(conversation.remote, numbers)).orderBy(desc(conversation.lastAt))
    const mine = used.flatMap(({ remote, lineId }) => lineId && lines.some(line => line.id === lineId) ? [{ remote, lineId }] : [])
    return {
      lines,
      lastLine: Object.fromEntries(mine.reverse().map(one => [one.remote, one.lineId])),
      texted: await lastTexts(asker, numbers),
      openedAt: now.getTime(),
      sender: [asker.firstName, await firmName()],
    }
  })
}

/**
 * The same for a conversation, with somebody on a record or on none.
 *
 * @throws Problem 404 if its line is not mine to answer
 */
export async function startConversation(asker: SignedIn, conversationId: string, now: Date): Promise<ComposerStart> {
  return tx(async (database) => {
    const [found] = await database.select({ remote: conversation.remote, lineId: conversation.lineId }).from(conversation)
      .innerJoin(line, and(eq(line.id, conversation.lineId), visible(asker, 'line.answer', { owner: line.colleagueId, team: line.teamId })))
      .where(eq(conversation.id, conversationId))
    if (!found) throw notFound('conversation')
    return {
      lines: await linesOf(asker),
      lastLine: { [found.remote]: found.lineId! },
      texted: await lastTexts(asker, [found.remote]),
      openedAt: now.getTime(),
      sender: [asker.firstName, await firmName()],
    }
  })
}

/** The last text of ours to each number that the asker may read, whoever wrote it and over whichever line. */
async function lastTexts(asker: SignedIn, numbers: string[]): Promise<ComposerStart['texted']> {
  if (numbers.length === 0) return {}
  const { rows } = await ask<{ remote: string, at: number, by: string, mine: boolean }>(sql`
    select distinct on (v.remote) v.remote, ${milliseconds(sql`m.made_at`)} as at, coalesce(c.first_name, 'Plauder') as by,
      coalesce(m.author_id = ${asker.id}::uuid, false) as mine
    from ${conversation} v
    cross join lateral (select * from ${message} m where m.conversation_id = v.id and m.direction = 'out' and m.state <> 'taken-back'
      and ${mayReadEntry(asker, sql`m.activity_id`)} order by m.made_at desc limit 1) m
    left join ${colleague} c on c.id = m.author_id
    where v.remote = any(${textArray(numbers)}) order by v.remote, m.made_at desc`)
  return Object.fromEntries(rows.map(({ remote, ...last }) => [remote, last]))
}
