import { and, eq, isNull, max } from 'drizzle-orm'
import { dueOn } from '~~/core/call/due'
import { sayEffect, type Effect, type EffectState, type FieldValue } from '~~/core/call/effects'
import { callState, isOff } from '~~/core/call/facts'
import { readFieldValue } from '~~/core/fields/value'
import { sayWallMoment } from '~~/core/hours/say'
import { zoneRules } from '~~/core/hours/zones'
import type { Disposed, EffectPreview } from '~~/shared/calling'
import type { DisposeForm, EffectChoice } from '~~/shared/schemas/calling'
import { savepoint, tx } from '../db/door'
import { call, callEffect, disposition } from '../db/schema'
import { badInput, conflict, notFound, Problem } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { perform, type Performed } from './perform'
import { factsFor, previewOf, personOf } from './preview'
import { announceCall, factsOf, mustBeMyCall, type StoredCall } from './stored'

/**
 * Says how a call went, and does all that this sets off, in one transaction: each effect in a savepoint of its own, so
 * that one that fails stops no other, and says why. Texts wait in the outbox for as long as they can be taken back.
 *
 * Pressing twice, or at two machines, does it once.
 *
 * @throws Problem 409 `disposed` if it has been said already; 422 at what an effect still has to ask
 */
export async function dispose(asker: SignedIn, callId: string, form: DisposeForm, now: Date): Promise<Disposed> {
  const disposed = await inOne(asker, callId, form, now)
  crashPoint('disposed')
  return disposed
}

function inOne(asker: SignedIn, callId: string, form: DisposeForm, now: Date): Promise<Disposed> {
  return tx(async (database) => {
    const mine = await mustBeMyCall(asker, callId)
    if (mine.dispositionId === form.dispositionId) return whatWasDone(mine)
    if (mine.dispositionId) throw conflict('disposed', 'Already said', 'It is said already how this call went. Take that back first, then choose anew.')
    if (!isOff(callState(factsOf(mine)))) throw conflict('still-on', 'The call is still on', 'End the call first, then say how it went.')
    const about = await personOf(asker, mine)
    const [chosen] = await database.select().from(disposition).where(and(eq(disposition.id, form.dispositionId), isNull(disposition.retiredAt)))
    if (!about || chosen?.module !== about.module) throw notFound('disposition')
    const facts = await factsFor(asker, mine, about, chosen.effects, now)
    const planned = chosen.effects.map((effect, position) => planOf(previewOf(effect, position, facts), form.choices.find(one => one.position === position), facts.zone, now))
    await database.update(call).set({ dispositionId: chosen.id, disposedAt: now }).where(eq(call.id, callId))
    const round = await nextRound(callId)
    for (const [position, plan] of planned.entries()) {
      const done = plan.leftOut ? { state: 'left-out' as const, reason: null, before: {} } : await attempt(() => perform(asker, mine, facts.target, plan, now))
      await database.insert(callEffect).values({ callId, round, position, effect: plan.preview.effect, words: plan.words, ...done })
      crashPoint('effect-done')
    }
    await announceCall(mine)
    return whatWasDone({ ...mine, dispositionId: chosen.id })
  })
}

/** An effect with everything that was said of it. */
export interface Plan {
  preview: EffectPreview
  words: string
  leftOut: boolean
  text: string | null
  answers: Record<string, string>
  due: ReturnType<typeof dueOn> | null
  value: FieldValue
}

/** @throws Problem 422 at what is not said yet */
function planOf(preview: EffectPreview, choice: EffectChoice | undefined, zone: string, now: Date): Plan {
  const { effect, position } = preview
  const plan: Plan = { preview, words: preview.words, leftOut: choice?.leftOut ?? false, text: choice?.text ?? null, answers: choice?.answers ?? {}, due: null, value: null }
  if (plan.leftOut) return plan
  if (effect.kind === 'field') return { ...plan, ...valueOf(preview, effect, choice) }
  if (effect.kind !== 'task' && effect.kind !== 'call-back') return plan
  const day = choice?.day ?? preview.due?.wallTime.slice(0, 10)
  if (!day) throw badInput({ [`choices.${position}.day`]: 'Say on which day, or leave this out.' })
  const due = dueOn(day, choice?.time ?? effect.time, zoneRules(zone)!)
  return { ...plan, due, words: sayEffect(effect, { due: sayWallMoment(due, now.getUTCFullYear()) }) }
}

/** The value of a field as it was said, or as the disposition has it; what is gone fails by itself, later. */
function valueOf({ field, position, words }: EffectPreview, effect: Extract<Effect, { kind: 'field' }>, choice: EffectChoice | undefined): { value: FieldValue, words: string } {
  const given = choice?.answers.value ?? effect.value
  if (!field) return { value: null, words }
  const reading = readFieldValue(field, given)
  if (!reading.ok) throw badInput({ [`choices.${position}.value`]: `${field.label}: ${reading.reason}` })
  if (reading.value === null) throw badInput({ [`choices.${position}.value`]: `Say what ${field.label} is, or leave this out.` })
  return { value: reading.value, words: sayEffect({ ...effect, value: reading.value }, { field: field.label }) }
}

async function attempt(work: () => Promise<Performed>): Promise<Performed & { state: EffectState }> {
  try {
    return { ...await savepoint(work), state: 'done' }
  }
  catch (error) {
    // what still has to be said is asked for, before anything is done
    if (error instanceof Problem && Object.keys(error.details.fields ?? {}).some(field => field.startsWith('choices.'))) throw error
    if (!(error instanceof Problem)) throw error
    return { state: 'failed', reason: Object.values(error.details.fields ?? {})[0] ?? error.details.detail, before: {} }
  }
}

/** What came of how I said that my call went. */
export async function readDisposed(asker: SignedIn, callId: string): Promise<Disposed> {
  const mine = await mustBeMyCall(asker, callId)
  if (!mine.dispositionId) throw notFound('disposition')
  return whatWasDone(mine)
}

async function nextRound(callId: string): Promise<number> {
  const [last] = await tx(database => database.select({ round: max(callEffect.round) }).from(callEffect).where(eq(callEffect.callId, callId)))
  return (last?.round ?? -1) + 1
}

export async function whatWasDone({ id, dispositionId }: StoredCall): Promise<Disposed> {
  return tx(async (database) => {
    const [named] = await database.select({ name: disposition.name }).from(disposition).where(eq(disposition.id, dispositionId!))
    const round = await nextRound(id) - 1
    const effects = await database.select({ position: callEffect.position, words: callEffect.words, state: callEffect.state, reason: callEffect.reason }).from(callEffect)
      .where(and(eq(callEffect.callId, id), eq(callEffect.round, round))).orderBy(callEffect.position)
    return { name: named!.name, effects }
  })
}
