import { and, eq, sql } from 'drizzle-orm'
import { proposeLine } from '~~/core/lines/proposed'
import { readPhone } from '~~/core/phone/read'
import type { LineChoice } from '~~/shared/composer'
import type { Stranger } from '~~/shared/find'
import { ask, read, tx } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { call, conversation, firm, message, phone, record } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { conversationWith } from './conversations'
import { linesOf } from './lines'

/** What is known of a number that somebody has typed: whether it can be texted, from which line, or why not. */
export async function readStranger(asker: SignedIn, typed: string): Promise<Stranger> {
  const [{ country } = { country: 'US' }] = await read(database => database.select({ country: firm.country }).from(firm))
  const reading = readPhone(typed, country)
  if (!reading.ok) return { kind: 'unusable', reason: reading.reason }
  const line = await lineFor(asker, reading.e164, reading.country)
  return line
    ? { kind: 'number', e164: reading.e164, line: line.name, last: await lastWith(asker, reading.e164) }
    : { kind: 'unusable', reason: 'no-line' }
}

/** The newest text or call between a number and a line that the asker answers. */
async function lastWith(asker: SignedIn, e164: string): Promise<{ at: number, how: 'text' | 'call' } | null> {
  const lines = uuidArray((await linesOf(asker, { ended: true })).map(({ id }) => id))
  const { rows: [last] } = await ask<{ at: number, how: 'text' | 'call' }>(sql`
    select ${milliseconds(sql`found.made_at`)} as at, found.how from (
      select m.made_at, 'text' as how from ${message} m join ${conversation} v on v.id = m.conversation_id
        where v.remote = ${e164} and v.line_id = any(${lines})
      union all select k.made_at, 'call' from ${call} k where k.remote = ${e164} and k.line_id = any(${lines})
    ) found order by found.made_at desc limit 1`)
  return last ?? null
}

/**
 * Opens a conversation with a number that may be on no record. Where it is on one that the asker sees, that record
 * is named instead, unless whoever asks has it on screen: what is known of somebody should not be passed over.
 */
export async function beginWith(
  asker: SignedIn,
  typed: string,
  { lineId = null, onRecord = false }: { lineId?: string | null, onRecord?: boolean },
  now: Date,
): Promise<{ conversationId: string | null, recordId: string | null }> {
  const found = await readStranger(asker, typed)
  if (found.kind === 'unusable')
    throw badInput({ typed: 'This number cannot be texted from a line of yours. Look at its digits and its country.' })
  return tx(async (database) => {
    const [known] = await database
      .select({ id: record.id })
      .from(phone)
      .innerJoin(record, eq(record.id, phone.recordId))
      .where(and(eq(phone.e164, found.e164), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
      .limit(1)
    if (known && !onRecord) return { conversationId: null, recordId: known.id }
    const { country } = readPhone(found.e164, 'US') as { country: string }
    const line = await lineFor(asker, found.e164, country, lineId)
    if (!line) throw badInput({ lineId: 'That line of yours does not text the country of this number. Choose another one.' })
    return { conversationId: await conversationWith(line.id, found.e164, now), recordId: null }
  })
}

async function lineFor(asker: SignedIn, e164: string, country: string, only: string | null = null): Promise<LineChoice | undefined> {
  const open = (await linesOf(asker)).filter(line => line.active && line.country === country && line.price && (!only || line.id === only))
  return proposeLine(open, e164)?.line
}
