import { whyNotThen } from '../records/wish'
import { v7 as uuid } from 'uuid'
import { mayLeaveNow } from '~~/core/message/gate'
import { isStillFrom } from '~~/core/template/kinship'
import { costOf } from '~~/core/money/cost'
import { covers, leftIn } from '~~/core/money/purse'
import { sayMoney, type Money } from '~~/core/numbers/money'
import { measureText, MOST_PARTS } from '~~/core/text/measure'
import type { SendForm } from '~~/shared/schemas/texting'
import { tx } from '../db/door'
import { isDuplicate } from '../db/failures'
import type { MessageOrigin } from '../db/schema/texting'
import { badInput, conflict } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { mustBeWithinLimits } from '../money/limits'
import { clockRules } from '../records/phones'
import { countUse } from '../templates/templates'
import { dropDraft } from './drafts'
import { mayText, type Line } from './lines'
import { checkPictures } from './pictures'
import { queueText, type Outgoing, type Queue, type Queued } from './queue'
import { leavesAtOf } from './schedule'
import { readSituation, type Recipient, type Situation } from './situation'

/**
 * The one way out for a person: checks, and in one statement writes the message, its entry on every
 * timeline it belongs to, and the job that hands it over. Sending the same again gives the first result.
 *
 * What may change between the check and the writing, a STOP above all, is asked again by the gate.
 *
 * @param origin what set it off, to be said on the timeline
 * @param queue how it is written, where more has to hold for it
 * @throws Problem 409 `opted-out`, `night` (with what time it is there), `texting-off`, `terms-unread`, `no-balance`,
 * `over-limit`, or a doubt, `wish`, `twice` or `answered`;
 * or `not-claimed`, where more has to hold; 422 at the field
 */
export async function sendText(
  asker: SignedIn,
  form: SendForm,
  now: Date,
  origin: Exclude<MessageOrigin, 'automatic'> = 'by-hand',
  queue: Queue = queueText,
): Promise<Queued> {
  const situation = await readSituation(asker, form, now)
  if (situation.earlier) return firstResult(asker, form.id, situation.earlier)
  const { same } = situation
  // the draft of which this was sent before, in a page that has not heard that it was
  if (same && form.ref && same.ref === form.ref && form.pictureIds.length === 0)
    return { id: same.id, activityId: same.activityId, leavesAt: same.leavesAt }
  const { line, recipient } = situation
  checkWords(form, situation)
  try {
    await checkPictures(asker, form.pictureIds, line.name, situation.price)
  }
  catch (error) {
    // the same was sent twice in one moment, and the other has the pictures already
    const { earlier } = await readSituation(asker, form, now)
    if (!earlier) throw error
    return firstResult(asker, form.id, earlier)
  }
  const leavesAt = form.later ? leavesAtOf(form.later, now) : new Date(now.getTime() + (origin === 'bulk' || origin === 'bulk-answer' ? 0 : situation.takeBackMs))
  checkRules(form, situation, form.later ? leavesAt : now)
  const cost = costIn(form, situation)
  mustBeCovered(cost, situation)
  askInDoubt(form, situation, now)
  const template = situation.templateBody !== null && isStillFrom(form.text, situation.templateBody)
    ? { templateId: form.templateId, templateVersion: form.templateVersion }
    : { templateId: null, templateVersion: null }
  try {
    const out: Outgoing = {
      id: form.id,
      line,
      to: recipient.e164,
      recordId: recipient.recordId,
      writtenOn: form.recordId,
      text: form.text,
      authorId: asker.id,
      origin,
      ...template,
      nightAllowed: form.nightAllowed,
      confirmsOptOut: false,
      leavesAt,
      later: form.later,
      ref: form.ref,
      pictureIds: form.pictureIds,
      seenUntil: form.seenUntil,
    }
    const queued = cost && situation.limited ? await queueWithinLimits(queue, out, cost, now) : await queue(out, now)
    if (!queued) {
      // a colleague was quicker by less than a statement
      const meanwhile = await readSituation(asker, form, now)
      const { answered } = meanwhile
      if (!answered) mustBeCovered(cost, meanwhile)
      throw answered ? answeredMeanwhile(answered) : conflict('not-claimed', 'Not its turn', 'What it is a part of does not go on, or it is sent already.')
    }
    if (form.ref) await dropDraft(asker.id, form.ref)
    if (template.templateId) await countUse(asker.id, template.templateId)
    return queued
  }
  catch (error) {
    if (isDuplicate(error, 'message_ref_unique'))
      throw conflict('ref-taken', 'Its reference is taken', 'Another text has this reference. Send it once more: it gets a new one.')
    if (!isDuplicate(error, 'message_pkey')) throw error
    // the same was sent twice in one moment, and the other came first
    return firstResult(asker, form.id, (await readSituation(asker, form, now)).earlier!)
  }
}

function firstResult(asker: SignedIn, id: string, earlier: NonNullable<Situation['earlier']>): Queued {
  if (earlier.authorId !== asker.id)
    throw conflict('id-taken', 'Already there', 'A text with this id exists. Reload the page and try again.')
  return { id, activityId: earlier.activityId, leavesAt: earlier.leavesAt }
}

/** The one way out for Plauder itself: an answer to STOP, START or HELP. The gate asks its rules all the same. */
export async function answerByItself(line: Line, to: string, text: string, confirmsOptOut: boolean, now: Date): Promise<void> {
  await queueText(
    {
      id: uuid(),
      line,
      to,
      recordId: null,
      text,
      authorId: null,
      origin: 'automatic',
      writtenOn: null,
      templateId: null,
      templateVersion: null,
      nightAllowed: false,
      confirmsOptOut,
      leavesAt: now,
      later: null,
      ref: null,
      pictureIds: [],
      seenUntil: null,
    },
    now,
  )
}

function checkWords({ text, pictureIds }: SendForm, { line, recipient, price, priced }: Situation): void {
  if (text.trim() === '' && pictureIds.length === 0) throw badInput({ text: 'Write the text first.' })
  if (/\{\{|\{%/.test(text)) throw badInput({ text: 'A field of the template is still open in the text. Fill it in or take it out.' })
  if (!mayText(line, recipient.country))
    throw badInput({
      lineId: `${line.name} texts within ${line.country} only, and this number is in ${recipient.country}. Choose a line there.`,
    })
  if (!price && priced)
    throw badInput({
      lineId: `The carrier of ${line.name} has no price for ${recipient.country}, so it cannot text there. Choose another line.`,
    })
  const { parts } = measureText(text, line.languages)
  const most = price?.mostParts ?? MOST_PARTS
  if (pictureIds.length === 0 && parts > most)
    throw badInput({ text: `The text has ${parts} parts; the carrier takes ${most}. Shorten it, or send it as two.` })
}

/** What it will cost; null where nobody knows. */
function costIn({ text, pictureIds }: SendForm, { line, price }: Situation): Money | null {
  const micros = price && costOf(price, measureText(text, line.languages).parts, pictureIds.length)
  return micros === null ? null : { micros, currency: price!.currency }
}

function mustBeCovered(cost: Money | null, { purse }: Situation): void {
  if (!cost || !purse || covers(purse, cost.micros)) return
  const left = Math.max(0, leftIn(purse))
  throw conflict(
    'no-balance',
    'It cannot be paid',
    `This text costs ${sayMoney(cost)}, and ${left === 0 ? 'nothing' : sayMoney({ ...cost, micros: left })} is left to pay with. It stays here until an admin has added to the balance.`,
    { currency: cost.currency },
  )
}

/** Of two that are sent at once the second sees what the first has spent. */
const queueWithinLimits = (queue: Queue, out: Outgoing, cost: Money, now: Date): Promise<Queued | null> => tx(async () => {
  await mustBeWithinLimits(out.authorId!, out.line.teamId, cost, now)
  return queue(out, now)
})

/** @param when the hour that decides: now, or the moment for which it is meant */
function checkRules({ nightAllowed }: SendForm, { line, recipient, textingOn, termsUnread }: Situation, when: Date): void {
  if (!textingOn) throw conflict('texting-off', 'Texting is off', 'Texting is switched off for the firm. Ask an admin to switch it on.')
  if (termsUnread) throw conflict('terms-unread', 'Read this first', 'The terms of use have been written, or have changed. Read them, and then send it: it stays here.')
  if (!line.active) throw badInput({ lineId: `${line.name} is not in use. Choose another line.` })
  if (recipient.optedOut)
    throw conflict(
      'opted-out',
      'Opted out',
      'This number has opted out, so no text leaves for it. Call, or wait until START comes from it.',
    )
  askAtNight(recipient, nightAllowed, when)
}

/** To send it all the same is to have looked until then: one that comes meanwhile is asked about again. */
const answeredMeanwhile = ({ by, words, at }: NonNullable<Situation['answered']>) =>
  conflict('answered', 'Answered meanwhile', `${by} has answered since you opened this: “${words ?? 'a picture'}”`, { seenUntil: at })

/** What stands in no rule's way, and should be looked at once more. */
function askInDoubt({ anyway, text }: SendForm, { openWish, same, answered, recipient }: Situation, now: Date): void {
  if (answered) throw answeredMeanwhile(answered)
  if (openWish && !anyway.includes('wish'))
    throw conflict(
      'wish',
      'A wish to get no texts',
      'What came from this number may be a wish to get no texts, and nobody has decided on it. Read it first: it is marked on the timeline.',
      { e164: recipient.e164 },
    )
  if (same && text.trim() !== '' && !anyway.includes('twice')) {
    const minutes = Math.max(1, Math.round((now.getTime() - same.madeAt) / 60_000))
    throw conflict('twice', 'Sent already', `You have sent the very same text to this number ${minutes} min ago.`)
  }
}

function askAtNight({ zones, house, wish, lastHeardAt }: Recipient, nightAllowed: boolean, now: Date): void {
  const verdict = mayLeaveNow({ now: now.getTime(), zones, house, wish, lastHeardAt, nightAllowed })
  if (verdict.leaves) return
  throw conflict('night', 'Their night', `${whyNotThen(verdict.reason, wish)} Send it later, or say that it may leave now.`, {
    reason: verdict.reason,
    zones: clockRules(zones, now),
    notBefore: verdict.notBefore,
  })
}
