import { eq } from 'drizzle-orm'
import { mayTurn, type RoundState } from '~~/core/call/round'
import type { RoundMannerForm } from '~~/shared/schemas/round'
import { tx } from '../../db/door'
import { callRound } from '../../db/schema'
import { conflict } from '../../http/problem'
import { note } from '../../identity/audit'
import type { SignedIn } from '../../identity/sign-in'
import { announceRound, mustHoldRound } from './one'

/** Pauses a round, stops it, or goes on with it. Whoever is in hand may still be called. */
export async function turnRound(asker: SignedIn, id: string, to: RoundState, now: Date): Promise<void> {
  await tx(async (database) => {
    const round = await mustHoldRound(asker, id, 'round.edit')
    if (round.state === to) return
    if (!mayTurn(round.state, to))
      throw conflict('round-turned', 'Not now', `The round ${round.name} is ${round.state}, so it cannot be ${to}.`)
    await database.update(callRound).set({ state: to }).where(eq(callRound.id, id))
    await note('round-turned', asker.id, now, { roundId: id, name: round.name, from: round.state, to })
    announceRound(round)
  })
}

/** Changes how a round goes, for whoever is handed out from now on. */
export async function changeRound(asker: SignedIn, id: string, form: RoundMannerForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const round = await mustHoldRound(asker, id, 'round.edit')
    await database.update(callRound).set(form).where(eq(callRound.id, id))
    await note('round-changed', asker.id, now, { roundId: id, name: form.name })
    announceRound(round)
  })
}
