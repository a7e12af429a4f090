import { and, eq, isNotNull, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { CALL_BACK_TITLE, type FieldValue } from '~~/core/call/effects'
import { sendForm } from '~~/shared/schemas/texting'
import { writeConsent } from '../consent/ledger'
import { tx } from '../db/door'
import { phone, record, template } from '../db/schema'
import { badInput, Problem } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { moveRecord } from '../records/move'
import { setOwnField } from '../records/set-field'
import { tagRecord } from '../records/tag'
import { fillOneForRecord } from '../templates/fill'
import { sendText } from '../texting/send'
import { takeBack } from '../texting/take-back'
import { appendEntry } from '../timeline/append'
import type { Plan } from './dispose'
import type { StoredCall } from './stored'
import { makeTask, withdrawTask } from './tasks'
import type { TextTarget } from './text-target'

/** What came of an effect, and what it needs to be taken back. */
export interface Performed { reason: string | null, before: Record<string, unknown> }

const NOTHING_TO_DO = (reason: string): Performed => ({ reason, before: {} })

/**
 * Does one effect of a disposition, by the same use cases that a person would call.
 *
 * @throws Problem where it cannot be done
 */
export async function perform(asker: SignedIn, call: StoredCall, target: TextTarget, plan: Plan, now: Date): Promise<Performed> {
  const { effect } = plan.preview
  const recordId = call.recordId!
  const because = { callId: call.id }
  switch (effect.kind) {
    case 'text': return { reason: null, before: { messageId: await text(asker, recordId, target, plan, now) } }
    case 'stage': {
      const [before] = await tx(database => database.select({ stage: record.stage }).from(record).where(eq(record.id, recordId)))
      if (before!.stage === effect.stage) return NOTHING_TO_DO('It stood there already.')
      await moveRecord(asker, recordId, { stage: effect.stage, from: null }, now, because)
      return { reason: null, before: { stage: before!.stage } }
    }
    case 'add-tag':
    case 'remove-tag': {
      const on = effect.kind === 'add-tag'
      const changed = await tagRecord(asker, recordId, effect.tag, on, now, because)
      return changed ? { reason: null, before: { tagged: !on, tag: effect.tag } } : NOTHING_TO_DO(on ? 'It had this tag already.' : 'It did not have this tag.')
    }
    case 'field': {
      const was = await setOwnField(asker, recordId, effect.field, plan.value, now, { because })
      return was === plan.value ? NOTHING_TO_DO('It said so already.') : { reason: null, before: { field: effect.field, was, value: plan.value } }
    }
    case 'task':
    case 'call-back': {
      const taskId = uuid()
      const title = effect.kind === 'task' ? effect.title : CALL_BACK_TITLE
      await makeTask(asker, { id: taskId, recordId, kind: effect.kind, title, due: plan.due!, callId: call.id }, now)
      return { reason: null, before: { taskId } }
    }
    case 'wrong-number': return { reason: null, before: { phoneIds: await markWrong(asker, call, now, because) } }
    case 'no-calls': return { reason: null, before: { numbers: await refuseCalls(asker, call, 'refused', now) } }
  }
}

/** The text as it was shown, or filled now with what was answered. */
async function text(asker: SignedIn, recordId: string, { phoneId, lineId, problem }: TextTarget, { preview, text: changed, answers }: Plan, now: Date): Promise<string> {
  if (problem) throw badInput({ text: problem })
  if (preview.effect.kind !== 'text') throw new Error('It is no text.')
  const filled = changed === null ? await fill(asker, recordId, preview.position, preview.effect.templateId, answers) : { text: changed, missing: [] }
  if (filled.text === null) throw badInput({ text: `Missing: ${filled.missing.join(', ')}. No text leaves with a hole in it.` })
  const id = uuid()
  const version = preview.text ? await versionOf(preview.effect.templateId) : null
  await sendText(asker, sendForm.validateSync({ id, lineId, phoneId, text: filled.text, templateId: version ? preview.effect.templateId : null, templateVersion: version }), now, 'disposition')
  return id
}

/** @throws Problem 422 at the choice whose blanks are still empty: the key waits until they are filled in */
async function fill(asker: SignedIn, recordId: string, position: number, templateId: string, answers: Record<string, string>) {
  try {
    return await fillOneForRecord(asker, recordId, templateId, { answers, aboutId: null, ref: null })
  }
  catch (error) {
    if (!(error instanceof Problem) || !error.details.fields) throw error
    throw badInput(Object.fromEntries(Object.entries(error.details.fields).map(([field, why]) => [`choices.${position}.${field}`, why])))
  }
}

async function versionOf(templateId: string): Promise<number | null> {
  const [found] = await tx(database => database.select({ version: template.version }).from(template).where(eq(template.id, templateId)))
  return found?.version ?? null
}

/** The number stays on the record as it was typed, marked, and is neither called nor texted for this record any more. */
async function markWrong(asker: SignedIn, call: StoredCall, now: Date, because: object): Promise<string[]> {
  return tx(async (database) => {
    const marked = await database.update(phone).set({ unusable: 'not-theirs', e164: null })
      .where(and(eq(phone.recordId, call.recordId!), eq(phone.e164, call.other))).returning()
    await logNumber(asker, call, call.other, 'somebody else’s', now, because)
    return marked.map(({ id }) => id)
  })
}

async function logNumber(asker: SignedIn, { recordId, other }: StoredCall, from: string, to: string, now: Date, because: object = {}): Promise<void> {
  await appendEntry({ id: uuid(), at: now, kind: 'fields-changed', colleagueId: asker.id, data: { ...because }, content: { changes: [{ field: 'phones', label: `Number ${other}`, from, to }] } }, [recordId!])
  const [changed] = await tx(database => database.update(record).set({ version: sql`${record.version} + 1` }).where(eq(record.id, recordId!)).returning())
  announce({ kind: 'record', recordId: recordId! }, 'record.see', [changed!])
}

/** The person is not to be called: on none of the numbers that the record has. */
async function refuseCalls(asker: SignedIn, call: StoredCall, kind: 'refused' | 'agreed', now: Date): Promise<string[]> {
  const numbers = await tx(database => database.selectDistinct({ e164: phone.e164 }).from(phone).where(and(eq(phone.recordId, call.recordId!), isNotNull(phone.e164))))
  const all = numbers.map(({ e164 }) => e164!)
  for (const e164 of all) await writeConsent({ e164, at: now, kind, covers: 'calls', how: 'by-hand', words: null, colleagueId: asker.id })
  return all
}

/**
 * Takes back what an effect did, by what was kept of it.
 *
 * @returns null when it is undone; else why it stays
 * @throws Problem where something else has come of it meanwhile: a text that has left
 */
export async function undo(asker: SignedIn, call: StoredCall, before: Record<string, unknown>, now: Date): Promise<string | null> {
  if (typeof before.messageId === 'string') {
    await takeBack(asker, before.messageId, now)
    return null
  }
  if ('stage' in before) {
    if (before.stage === null) return 'It stood in no stage before.'
    await moveRecord(asker, call.recordId!, { stage: String(before.stage), from: null }, now)
    return null
  }
  if (typeof before.tagged === 'boolean') {
    await tagRecord(asker, call.recordId!, String(before.tag), before.tagged, now)
    return null
  }
  if (typeof before.field === 'string') {
    await setOwnField(asker, call.recordId!, before.field, before.was as FieldValue, now, { from: before.value as FieldValue })
    return null
  }
  if (typeof before.taskId === 'string') return await withdrawTask(asker, before.taskId, now) ? null : 'It is done already.'
  if (Array.isArray(before.phoneIds)) {
    for (const id of before.phoneIds as string[]) await tx(database => database.update(phone).set({ unusable: null, e164: call.other }).where(eq(phone.id, id)))
    await logNumber(asker, call, 'somebody else’s', call.other, now)
    return null
  }
  if (Array.isArray(before.numbers)) {
    await refuseCalls(asker, call, 'agreed', now)
    return null
  }
  return null
}
