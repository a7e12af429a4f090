import { eq } from 'drizzle-orm'
import { stepsFrom, type LineState, type LineStep } from '~~/core/lines/life'
import type { SetUpLine } from '~~/shared/set-up'
import { carrierRegistered } from '../carriers/registry'
import type { CarrierNumber, NumberRental } from '../carriers/port'
import { read, tx } from '../db/door'
import { line } from '../db/schema'
import { conflict, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { listLines, mustEditLines } from './line-edit'
import { asksOf, mustCoverNumber } from './line-rent'
import { heedNumber } from './line-told'
import type { Line } from './lines'

/** What a carrier that rents numbers out is asked for with a step; the others are between us. */
const ASKED: Partial<Record<LineStep, (rental: NumberRental, e164: string) => Promise<CarrierNumber | null>>> = {
  'end': (rental, e164) => rental.end(e164),
  'keep': (rental, e164) => rental.keep(e164),
  'take-up': (rental, e164) => rental.take(e164),
}

/** What a line is after a step of which no carrier is asked. */
const THEN: Record<LineStep, LineState> = { 'pause': 'paused', 'go-on': 'active', 'end': 'ended', 'keep': 'active', 'take-up': 'active' }

/** Where a step has led already, of which the answer got lost: taken again it is taken once. */
const isTaken = (step: LineStep, state: LineState) => state === THEN[step] || (step === 'end' && state === 'ending') || (step === 'take-up' && state === 'ordered')

/**
 * Takes a step with a line. Its carrier is asked first, outside of any transaction; what is lost on the way back is read when its
 * numbers are read.
 *
 * @throws Problem 409 where the line is not there any more, the carrier does not answer or has the number no longer, or it cannot be paid
 */
export async function stepLine(asker: SignedIn, id: string, step: LineStep, now: Date): Promise<SetUpLine[]> {
  mustEditLines(asker)
  const [before] = await read(database => database.select().from(line).where(eq(line.id, id)))
  if (!before) throw notFound('line')
  if (!isTaken(step, before.state)) {
    mustBeOpen(before, step)
    const word = await askCarrier(before, step)
    await tx(async (database) => {
      const [found] = await database.select().from(line).where(eq(line.id, id)).for('update')
      mustBeOpen(found!, step)
      await note('line-stepped', asker.id, now, { lineId: id, name: found!.name, step })
      if (word) return void await heedNumber(found!.carrier, word, now)
      await database.update(line).set({ state: THEN[step] }).where(eq(line.id, id))
      announce({ kind: 'lines' }, 'line.edit', [{}])
    })
  }
  return listLines(asker)
}

function mustBeOpen({ name, state }: Line, step: LineStep): void {
  if (!stepsFrom(state).includes(step))
    throw conflict('not-now', 'It is another one by now', `${name} was changed meanwhile by a colleague or its carrier. Look at it as it is.`)
}

async function askCarrier({ name, carrier, e164 }: Line, step: LineStep): Promise<CarrierNumber | null> {
  const known = carrierRegistered(carrier)
  const ask = ASKED[step]
  if (!known?.rental || !ask) return null
  if (step === 'take-up') await mustCoverNumber(known, e164)
  const word = await asksOf(known, rental => ask(rental, e164))
  if (!word && step !== 'end') throw conflict('number-gone', 'It is gone', `${known.title} does not have the number of ${name} any more. Find another one.`)
  return word
}
