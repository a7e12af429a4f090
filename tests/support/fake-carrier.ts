import { eq } from 'drizzle-orm'
import { NATIONAL_TABLES, readShift } from '~~/core/text/national'
import { cut } from '~~/practice/carrier/air'
import type { Carrier, CarrierEvent, CarrierText, HandOverAnswer } from '~~/server/carriers/port'
import { registerCarrier } from '~~/server/carriers/registry'
import { tx } from '~~/server/db/door'
import { textMessage } from '~~/server/db/schema'
import { WORKSHOP } from '~~/server/workshop'
import { takeDue } from '~~/server/jobs/outbox'

/**
 * A carrier under the test's control: it keeps what it is asked and answers as told. Of every text that comes by
 * it counts the parts as the practice carrier would, and holds them against what we had counted.
 */
export function fakeCarrier(name = 'practice') {
  const asked: CarrierText[] = []
  const answers: ((text: CarrierText) => HandOverAnswer | Promise<HandOverAnswer>)[] = []
  const accept = (text: CarrierText): HandOverAnswer => ({
    kind: 'accepted',
    ref: `ref-${text.key}`,
    charge: { parts: 1, costMicros: 8_000, currency: 'USD' },
  })
  /** Pictures by their names; one that is away cannot be reached. */
  const pictures = new Map<string, Buffer | 'away'>()
  const carrier: Carrier = {
    name,
    title: `The carrier “${name}”`,
    hand: async (text) => {
      asked.push(text)
      await expectSameParts(text)
      return (answers.shift() ?? accept)(text)
    },
    readEvent: told => told as CarrierEvent,
    pictureOf: async (picture) => {
      const found = pictures.get(picture)
      if (found === 'away') throw new Error('The carrier is away.')
      return found ?? null
    },
    eventsSince: async cursor => ({ told: [], cursor }),
    prices: async () => ({ prices: [], mostParts: 10, mostPictures: 3, mostPictureBytes: 600_000 }),
  }
  registerCarrier(carrier)
  return {
    asked,
    pictures,
    next: (answer: HandOverAnswer | ((text: CarrierText) => HandOverAnswer | Promise<HandOverAnswer>)) =>
      answers.push(typeof answer === 'function' ? answer : () => answer),
  }
}

/** Runs every job that is due at this time, and those that become so meanwhile. */
export async function drain(now: Date): Promise<void> {
  for (;;) {
    const { works, claimed } = await takeDue(WORKSHOP, () => now, 20)
    if (claimed === 0) return
    await Promise.all(works.map(work => work()))
  }
}

async function expectSameParts({ key, text, shift, pictures }: CarrierText): Promise<void> {
  const [ours] = await tx(database => database.select({ parts: textMessage.parts }).from(textMessage).where(eq(textMessage.messageId, key)))
  const { language, single, locking } = shift ? readShift(shift) : { language: 'turkish', single: false, locking: false } as const
  const { id } = NATIONAL_TABLES[language]
  const theirs = pictures.length > 0 ? 1 : cut(text, 0, { single: single ? id : 0, locking: locking ? id : 0 }).length
  expect({ text, parts: ours!.parts }).toEqual({ text, parts: theirs })
}
