import { and, eq, isNull, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { can } from '~~/shared/permissions'
import type { ConsentForm } from '~~/shared/schemas/texting'
import { read, tx } from '../db/door'
import { activityContent, activityOnRecord, consentProposal, message, phone, record } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { authorize } from '../records/one'
import { mayReadEntry } from '../reading/entries'
import { writeConsent } from './ledger'
import { lockNumber } from './number'

/**
 * A colleague writes down what a person said: that texts, or calls, are welcome, or that they are not. It may
 * decide on a wish in free words that was proposed.
 *
 * @throws Problem 409 if the number opted out by STOP: only the person can take that back
 */
export async function decideConsent(asker: SignedIn, phoneId: string, form: ConsentForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select({ e164: phone.e164, recordId: phone.recordId }).from(phone).where(eq(phone.id, phoneId))
    if (!found) throw notFound('number')
    await authorize(asker, 'record.edit', found.recordId)
    if (!found.e164) throw badInput({ phoneId: 'This number cannot be used, so there is nothing to agree to. Correct it first.' })
    const before = await lockNumber(found.e164)
    if (form.agrees && form.covers === 'texts' && before.texts === 'refused') {
      throw conflict('opted-out', 'Opted out', 'Only the person can take an opt-out back, by texting START to one of our lines.')
    }
    const proposed = form.proposalId ? await wordsOfProposal(asker, form.proposalId, found.e164) : null
    const words = form.words || proposed?.words
    if (!words) throw badInput({ words: 'Write down what the person said, so that the ledger shows why.' })
    if (form.proposalId) await settleProposal(form.proposalId, asker, form.agrees ? 'no' : 'yes', now)
    await writeConsent({
      e164: found.e164,
      at: now,
      kind: form.agrees ? 'agreed' : 'refused',
      covers: form.covers,
      how: 'by-hand',
      words,
      colleagueId: asker.id,
      ...(!form.words && proposed && { messageId: proposed.messageId }),
    })
    announce({ kind: 'record', recordId: found.recordId }, 'record.see', [await authorize(asker, 'record.see', found.recordId)])
  })
}

/** "No, that was no wish to be left alone": the proposal goes, the ledger stays as it is. */
export async function dismissProposal(asker: SignedIn, proposalId: string, now: Date): Promise<void> {
  await tx(async () => {
    await mustSeeProposal(asker, proposalId)
    await settleProposal(proposalId, asker, 'no', now)
  })
}

/**
 * The words of the text that held the wish, for who may read it. A wish from another number is not found: who may see this
 * one may not see that.
 */
async function wordsOfProposal(asker: SignedIn, proposalId: string, e164: string): Promise<{ words: string | null, messageId: string }> {
  const [found] = await read(database =>
    database
      .select({ words: activityContent.words, messageId: message.id })
      .from(consentProposal)
      .innerJoin(message, eq(message.activityId, consentProposal.activityId))
      .leftJoin(activityContent, eq(activityContent.activityId, consentProposal.activityId))
      .where(
        and(eq(consentProposal.id, proposalId), eq(consentProposal.e164, e164), mayReadEntry(asker, sql`${consentProposal.activityId}`)),
      ),
  )
  if (!found) throw notFound('proposal')
  return found
}

async function mustSeeProposal(asker: SignedIn, proposalId: string): Promise<void> {
  const rows = await read(database => database
    .select({ record })
    .from(consentProposal)
    .innerJoin(activityOnRecord, eq(activityOnRecord.activityId, consentProposal.activityId))
    .innerJoin(record, eq(record.id, activityOnRecord.recordId))
    .where(and(eq(consentProposal.id, proposalId), mayReadEntry(asker, sql`${consentProposal.activityId}`))))
  const seen = rows.filter(row => can(asker, 'record.see', row.record))
  if (seen.length === 0) throw notFound('proposal')
  if (!seen.some(row => can(asker, 'record.edit', row.record))) throw notAllowed('decide on this wish')
}

async function settleProposal(proposalId: string, asker: SignedIn, optedOut: 'yes' | 'no', now: Date): Promise<void> {
  await tx(async (database) => {
    const [settled] = await database.update(consentProposal)
      .set({ decidedAt: now, decidedBy: asker.id, optedOut })
      .where(and(eq(consentProposal.id, proposalId), isNull(consentProposal.decidedAt)))
      .returning()
    if (!settled) throw conflict('decided', 'Already decided', 'A colleague has already decided on this wish. Reload to see how.')
    const shown = await database
      .select({ record })
      .from(activityOnRecord)
      .innerJoin(record, eq(record.id, activityOnRecord.recordId))
      .where(eq(activityOnRecord.activityId, settled.activityId))
    for (const { record: one } of shown) announce({ kind: 'entry', recordId: one.id, activityId: settled.activityId }, 'record.see', [one])
  })
}

/** What somebody has written may be a wish to be left alone: a person decides. */
export async function proposeOptOut(e164: string, activityId: string, now: Date): Promise<void> {
  await tx(database => database.insert(consentProposal).values({ id: uuid(), e164, activityId, at: now }))
}
