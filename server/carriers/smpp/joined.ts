import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Joined } from '~~/core/smpp/header'
import type { Fate } from '~~/core/smpp/receipt'
import { tx } from '../../db/door'
import { smppReceivedPart, smppSentPart } from '../../db/schema'

/** A part that is missing for so long comes no more: what is there is shown without it. */
const LATEST_MS = 15 * 60_000
/** In place of a part that is missing. */
const GAP = ' […] '

/** Writes down which short messages are one text; the first stands for it. */
export async function joinSent(carrier: string, refs: string[], now: Date): Promise<void> {
  await tx(database => database.insert(smppSentPart)
    .values(refs.map(ref => ({ carrier, ref, textRef: refs[0]!, sentAt: now })))
    .onConflictDoNothing())
}

/**
 * What became of a part, and so of its text: it is there once all of its parts are, and is not once one of them is not.
 *
 * @returns the text's own reference and fate; those given, where it is no part of several
 */
export async function fateOfText(carrier: string, ref: string, fate: Fate): Promise<{ ref: string, fate: Fate }> {
  return tx(async (database) => {
    const itself = and(eq(smppSentPart.carrier, carrier), eq(smppSentPart.ref, ref))
    const [part] = await database.select().from(smppSentPart).where(itself).for('update')
    if (!part) return { ref, fate }
    // what is delivered stays so, whatever is told late
    if (part.fate !== 'delivered')
      await database.update(smppSentPart).set({ fate }).where(itself)
    const parts = await database.select({ fate: smppSentPart.fate }).from(smppSentPart)
      .where(and(eq(smppSentPart.carrier, carrier), eq(smppSentPart.textRef, part.textRef)))
    return { ref: part.textRef, fate: wholeFate(parts.map(one => one.fate)) }
  })
}

function wholeFate(fates: (Fate | null)[]): Fate {
  if (fates.includes('not-delivered')) return 'not-delivered'
  return fates.every(fate => fate === 'delivered') ? 'delivered' : 'on-the-way'
}

export interface ReceivedPart { remote: string, own: string, text: string, joined: Joined }

/** A text for us whose parts are together. */
export interface Assembled { id: string, remote: string, own: string, text: string }

/**
 * Keeps a part of a text for us.
 *
 * @returns the text, once its last part is there; it is kept until `forget`, so that a crash in between loses nothing
 */
export async function keepPart(carrier: string, received: ReceivedPart, now: Date): Promise<Assembled | null> {
  const { remote, own, text, joined: { reference, part, of } } = received
  return tx(async (database) => {
    await database.insert(smppReceivedPart)
      .values({ id: uuid(), carrier, remote, own, reference, parts: of, part, text, at: now })
      .onConflictDoNothing()
    const kept = await database.select().from(smppReceivedPart).where(and(
      eq(smppReceivedPart.carrier, carrier), eq(smppReceivedPart.remote, remote), eq(smppReceivedPart.own, own),
      eq(smppReceivedPart.reference, reference), eq(smppReceivedPart.parts, of)))
    return kept.length < of ? null : assemble(kept)
  })
}

/** Texts of which no more parts will come. */
export async function overdue(carrier: string, now: Date): Promise<Assembled[]> {
  const kept = await tx(database => database.select().from(smppReceivedPart)
    .where(eq(smppReceivedPart.carrier, carrier)))
  const texts: Record<string, typeof kept> = {}
  for (const part of kept) (texts[`${part.remote} ${part.own} ${part.reference} ${part.parts}`] ??= []).push(part)
  return Object.values(texts).filter(parts => parts.every(({ at }) => now.getTime() - at.getTime() > LATEST_MS)).map(assemble)
}

function assemble(kept: typeof smppReceivedPart.$inferSelect[]): Assembled {
  const { remote, own, parts } = kept[0]!
  const text = Array.from({ length: parts }, (_, i) => kept.find(({ part }) => part === i + 1)?.text ?? GAP).join('')
  return { id: kept.map(({ id }) => id).sort()[0]!, remote, own, text: text.trim() }
}

/** It is told: its parts are needed no more. */
export async function forget(carrier: string, { id }: Assembled): Promise<void> {
  await tx(async (database) => {
    const [first] = await database.select().from(smppReceivedPart)
      .where(and(eq(smppReceivedPart.carrier, carrier), eq(smppReceivedPart.id, id)))
    if (!first) return
    const { remote, own, reference, parts } = first
    await database.delete(smppReceivedPart).where(and(
      eq(smppReceivedPart.carrier, carrier), eq(smppReceivedPart.remote, remote), eq(smppReceivedPart.own, own),
      eq(smppReceivedPart.reference, reference), eq(smppReceivedPart.parts, parts)))
  })
}
