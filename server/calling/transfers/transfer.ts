import { eq } from 'drizzle-orm'
import { callState, isOff } from '~~/core/call/facts'
import { TRANSFER_RINGS_MS, STEP_OF, type TransferStep } from '~~/core/call/transfer'
import type { TransferForm } from '~~/shared/schemas/calling'
import { tx } from '../../db/door'
import { call, callTransfer } from '../../db/schema'
import { badInput, conflict, notFound } from '../../http/problem'
import type { SignedIn } from '../../identity/sign-in'
import { addJob } from '../../jobs/add'
import { TRANSFER_BACK } from '../../jobs/kinds'
import { isOnCall } from '../on-call'
import { theExchange } from '../port'
import { announceCall, factsOf, mustBeMyCall, type StoredCall } from '../stored'
import { openTransfer, stepTransfer, type StoredTransfer } from './step'
import { colleaguesToHandTo } from './to-whom'

const NOT_NOW = 'A call can be handed to a colleague while you talk.'

/**
 * Begins to hand my call to a colleague: whoever is on the line waits on hold, and it rings with the colleague. Sending
 * the same again begins it once.
 *
 * @throws Problem 404, 409 while it cannot be handed, 422 at the colleague
 */
export async function transferCall(asker: SignedIn, callId: string, form: TransferForm, now: Date): Promise<void> {
  const { exchangeRef } = await mustBeMine(asker, callId, form)
  // on hold before anybody else is on it: nobody hears what is not meant for them
  const held = await theExchange().order(exchangeRef!, 'hold')
  if (held === 'unreachable') throw conflict('exchange-away', 'No connection', 'The exchange cannot be reached. Try again in a moment.')
  if (held !== 'done') throw conflict('not-now', 'Not now', NOT_NOW)
  await tx(async (database) => {
    const mine = await mustBeMine(asker, callId, form)
    const [made] = await database
      .insert(callTransfer)
      .values({ id: form.id, callId, fromId: asker.id, toId: form.toId, way: form.way, state: 'asked', askedAt: now })
      .onConflictDoNothing()
      .returning()
    if (!made) return
    await addJob({
      kind: TRANSFER_BACK,
      key: form.id,
      payload: { callId, transferId: form.id },
      dueAt: new Date(now.getTime() + TRANSFER_RINGS_MS),
    })
    await announceCall(mine)
  })
}

async function mustBeMine(asker: SignedIn, callId: string, { id, toId }: TransferForm): Promise<StoredCall> {
  return tx(async () => {
    const mine = await mustBeMyCall(asker, callId)
    const state = callState(factsOf(mine))
    if (state !== 'talking' && state !== 'held') throw conflict('not-now', 'Not now', NOT_NOW)
    const open = await openTransfer(callId)
    if (open && open.id !== id)
      throw conflict('transfer', 'It is being handed', 'This call is being handed to a colleague already. Take it back first.')
    const to = (await colleaguesToHandTo(asker, mine)).find(one => one.id === toId)
    if (!to) throw badInput({ toId: 'This colleague does not answer that line. Choose another one.' })
    if (to.busy && !open) throw badInput({ toId: `${to.name} is on a call. Choose another one, or wait.` })
    return mine
  })
}

/**
 * The next step, by the colleague to whom it is handed or by whoever hands it.
 *
 * @throws Problem 404 where it is not theirs, 409 where the step leads nowhere any more
 */
export async function stepOfTransfer(asker: SignedIn, callId: string, step: TransferStep, now: Date): Promise<void> {
  const stepped = await tx(async (database) => {
    const [on] = await database.select().from(call).where(eq(call.id, callId)).for('update')
    const open = on && await openTransfer(callId)
    if (!open || (STEP_OF[step] === 'us' ? open.fromId : open.toId) !== asker.id) throw notFound('call that is being handed')
    if (step === 'take' && (await isOnCall(asker.id)))
      throw conflict('on-a-call', 'You are on a call', 'You are on a call already. End it, then take this one.')
    const after = await stepTransfer(open, step, now)
    if (!after) throw conflict('not-now', 'Not now', 'That cannot be done at this moment of transfer the call on.')
    if (after.state === 'transferred') await database.update(call).set({ colleagueId: after.toId }).where(eq(call.id, callId))
    await announceCall(on)
    return { on, before: open, after }
  })
  await tellExchange(stepped.on, stepped.before, stepped.after, step)
}

/** Who is on it, and whether whoever called still waits. What the exchange does not take can be done by hand: hold, and go on. */
async function tellExchange(
  { exchangeRef: ref, endedAt }: StoredCall,
  before: StoredTransfer,
  { state, fromId, toId }: StoredTransfer,
  step: TransferStep,
): Promise<void> {
  const exchange = theExchange()
  if (!ref || endedAt) return
  if (state === 'together' || (state === 'transferred' && before.state === 'asked')) await exchange.seat(ref, toId, true)
  if (state === 'transferred') await exchange.seat(ref, fromId, false)
  if (state === 'back' && before.state === 'together') await exchange.seat(ref, toId, false)
  // a colleague who will not have it leaves them waiting, until whoever has it again is there
  if (state === 'transferred' || step === 'take-back') await exchange.order(ref, 'resume')
}

/** Nobody took it in time: whoever hands it has it again. */
export async function transferRunsOut(transferId: string, callId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [on] = await database.select().from(call).where(eq(call.id, callId)).for('update')
    const open = await openTransfer(callId)
    if (!on || isOff(callState(factsOf(on))) || open?.id !== transferId) return
    if (await stepTransfer(open, 'run-out', now)) await announceCall(on)
  })
}
