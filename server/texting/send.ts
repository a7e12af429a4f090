import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { mayLeaveNow } from '~~/core/message/gate'
import { measureText } from '~~/core/text/measure'
import type { SendForm } from '~~/shared/schemas/texting'
import { tx } from '../db/door'
import { conversation, firm, job, message, phone, record } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { lockNumber } from '../consent/number'
import { HAND_OVER } from '../jobs/kinds'
import { wakeOutbox } from '../jobs/wake'
import { clockRules, recordsWithNumber, zonesOf } from '../records/phones'
import { mustHold } from '../records/one'
import { appendEntry } from '../timeline/append'
import { announceConversation, openConversation, waitsNoMore } from './conversations'
import { mayText, mustAnswerLine, priceOf, type Line } from './lines'

/** For this long a text waits before it leaves, so that it can be taken back. */
export const TAKE_BACK_MS = 5_000

export interface Queued { id: string, activityId: string, leavesAt: number }

interface Recipient { e164: string, country: string, zones: string[], recordId: string | null }

interface Outgoing {
  id: string
  line: Line
  recipient: Recipient
  text: string
  authorId: string | null
  templateId: string | null
  templateVersion: number | null
  nightAllowed: boolean
  confirmsOptOut: boolean
  leavesAt: Date
}

/**
 * The one way out for a person: checks, and in one transaction writes the message, its entry on every
 * timeline it belongs to, and the job that hands it over. Sending the same again gives the first result.
 *
 * @throws Problem 409 `opted-out`, `night` (with what time it is there) or `texting-off`; 422 at the field
 */
export async function sendText(asker: SignedIn, form: SendForm, now: Date): Promise<Queued> {
  return tx(async (database) => {
    const [earlier] = await database.select().from(message).where(eq(message.id, form.id))
    if (earlier) {
      if (earlier.authorId !== asker.id) throw conflict('id-taken', 'Already there', 'A text with this id exists. Reload the page and try again.')
      return { id: earlier.id, activityId: earlier.activityId, leavesAt: earlier.leavesAt.getTime() }
    }
    const line = await mustAnswerLine(asker, form.lineId)
    const recipient = await recipientOf(asker, form, line)
    await checkWords(form, line, recipient)
    await checkRules(form, line, recipient, now)
    return queue({
      id: form.id,
      line,
      recipient,
      text: form.text,
      authorId: asker.id,
      templateId: form.templateId,
      templateVersion: form.templateVersion,
      nightAllowed: form.nightAllowed,
      confirmsOptOut: false,
      leavesAt: new Date(now.getTime() + TAKE_BACK_MS),
    }, now)
  })
}

/** The one way out for Plauder itself: an answer to STOP, START or HELP. The gate asks its rules all the same. */
export async function answerByItself(line: Line, other: string, text: string, confirmsOptOut: boolean, now: Date): Promise<void> {
  const recipient = { e164: other, country: line.country, zones: [], recordId: null }
  await queue({ id: uuid(), line, recipient, text, authorId: null, templateId: null, templateVersion: null, nightAllowed: false, confirmsOptOut, leavesAt: now }, now)
}

/** Writes everything about a text in one transaction: message, entry, job. */
async function queue(out: Outgoing, now: Date): Promise<Queued> {
  return tx(async (database) => {
    const { encoding, units, parts } = measureText(out.text)
    const activityId = uuid()
    const conversationId = await openConversation(out.line.id, out.recipient.e164, now)
    const answersSince = out.authorId ? await waitsNoMore(conversationId) : null
    const recordIds = await recordsWithNumber(out.recipient.e164)
    await appendEntry({
      id: activityId,
      at: now,
      kind: 'text-out',
      colleagueId: out.authorId,
      messageId: out.id,
      words: out.text,
      privateLineId: out.line.private ? out.line.id : null,
    }, recordIds)
    await database.insert(message).values({
      id: out.id,
      conversationId,
      activityId,
      direction: 'out',
      origin: out.authorId ? 'by-hand' : 'automatic',
      authorId: out.authorId,
      recordId: out.recipient.recordId,
      templateId: out.templateId,
      templateVersion: out.templateVersion,
      state: 'waiting',
      nightAllowed: out.nightAllowed,
      confirmsOptOut: out.confirmsOptOut,
      answersSince,
      encoding,
      units,
      parts,
      madeAt: now,
      leavesAt: out.leavesAt,
    })
    await database.insert(job).values({
      id: uuid(),
      kind: HAND_OVER,
      key: `${HAND_OVER} ${out.id}`,
      payload: { messageId: out.id },
      lane: `${out.line.e164} ${out.recipient.e164}`,
      orderAt: now,
      dueAt: out.leavesAt,
    })
    announceConversation(conversationId, out.line)
    wakeOutbox(out.leavesAt)
    return { id: out.id, activityId, leavesAt: out.leavesAt.getTime() }
  })
}

async function recipientOf(asker: SignedIn, form: SendForm, line: Line): Promise<Recipient> {
  if (form.phoneId) return recipientOnRecord(asker, form.phoneId)
  if (!form.conversationId) throw badInput({ phoneId: 'Choose a number to text.' })
  const [found] = await tx(database => database.select().from(conversation).where(eq(conversation.id, form.conversationId!)))
  if (!found || found.lineId !== line.id) throw notFound('conversation')
  return { e164: found.other, country: line.country, zones: zonesOf({ zone: null, country: null, region: null }, found.other), recordId: null }
}

async function recipientOnRecord(asker: SignedIn, phoneId: string): Promise<Recipient> {
  const [found] = await tx(database => database.select({ phone, record }).from(phone).innerJoin(record, eq(record.id, phone.recordId)).where(eq(phone.id, phoneId)))
  if (!found) throw notFound('number')
  await mustHold(asker, 'record.see', found.record.id)
  if (!found.phone.e164) throw badInput({ phoneId: 'This number cannot be used, so nothing can be sent to it. Correct it on the record.' })
  if (found.phone.kind === 'landline') throw badInput({ phoneId: 'This is a landline, which takes no texts. Choose another number, or call it.' })
  return { e164: found.phone.e164, country: found.phone.country!, zones: zonesOf(found.record, found.phone.e164), recordId: found.record.id }
}

async function checkWords({ text }: SendForm, line: Line, { country }: Recipient): Promise<void> {
  if (text.trim() === '') throw badInput({ text: 'Write the text first.' })
  if (/\{\{|\{%/.test(text)) throw badInput({ text: 'A field of the template is still open in the text. Fill it in or take it out.' })
  if (!mayText(line, country)) throw badInput({ lineId: `${line.name} texts within ${line.country} only, and this number is in ${country}. Choose a line there.` })
  const price = await priceOf(line.carrier, country)
  if (!price) throw badInput({ lineId: `The carrier of ${line.name} has no price for ${country}, so it cannot text there. Choose another line.` })
  const { parts } = measureText(text)
  if (parts > price.mostParts) throw badInput({ text: `The text has ${parts} parts; the carrier takes ${price.mostParts}. Shorten it, or send it as two.` })
}

async function checkRules({ nightAllowed }: SendForm, line: Line, { e164, zones }: Recipient, now: Date): Promise<void> {
  const [{ textingOn } = { textingOn: false }] = await tx(database => database.select({ textingOn: firm.textingOn }).from(firm))
  if (!textingOn) throw conflict('texting-off', 'Texting is off', 'Texting is switched off for the firm. Ask an admin to switch it on.')
  if (!line.active) throw badInput({ lineId: `${line.name} is not active. Choose another line.` })
  const number = await lockNumber(e164)
  if (number.texts === 'refused') throw conflict('opted-out', 'Opted out', 'This number has opted out, so no text leaves for it. Call, or wait until START comes from it.')
  const verdict = mayLeaveNow({ now: now.getTime(), zones, lastHeardAt: number.lastHeardAt?.getTime() ?? null, nightAllowed })
  if (!verdict.leaves) {
    const detail = verdict.reason === 'night' ? 'It is outside of the hours in which a person there may be texted.' : 'Nobody knows what time it is there.'
    throw conflict('night', 'Their night', `${detail} Send it later, or say that it may leave now.`, { reason: verdict.reason, zones: clockRules(zones, now), notBefore: verdict.notBefore })
  }
}
