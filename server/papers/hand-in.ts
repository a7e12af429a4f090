import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { missingFrom } from '~~/core/papers/papers'
import type { HandInForm, PapersWordForm } from '~~/shared/schemas/papers'
import { carrierRegistered } from '../carriers/registry'
import { tx } from '../db/door'
import { registration, registrationStep } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { filesWithBytes, mustEditPapers, readPapers } from './written'

/**
 * Hands the papers in to a carrier for a country, or anew with what was changed. One that takes them by itself has them then; to
 * others an admin brings them, and that is written down.
 *
 * @throws Problem 409 where something is missing, where they lie there unanswered, or where the carrier cannot be reached
 */
export async function handIn(asker: SignedIn, { id, carrier, country, ...usual }: HandInForm, now: Date): Promise<void> {
  mustEditPapers(asker)
  const known = carrierRegistered(carrier)
  if (!known) throw badInput({ carrier: 'This carrier is not there any more. Reload the page.' })
  const { papers } = await readPapers()
  if (missingFrom(papers).length > 0)
    throw conflict('papers-missing', 'Not all is written yet', 'Write what is marked as missing first: a carrier sends back what is not whole.')
  await mustNotLieThere(carrier, country)
  // asking the same again is the same: a carrier to which they were brought twice has them once
  const ref = known.papers
    ? await known.papers.handIn(country, papers, await filesWithBytes()).then(({ ref }) => ref, () => {
        throw conflict('carrier-away', 'It does not answer', `${known.title} cannot be reached. Try again in a minute: what it has already it does not get twice.`)
      })
    : null
  await tx(async (database) => {
    await mustNotLieThere(carrier, country)
    const values = { state: 'handed-in' as const, papers, handedAt: now, answeredAt: null, ...usual, ...ref !== null && { ref } }
    const [{ id: registrationId } = { id }] = await database.insert(registration).values({ id, carrier, country, ...values })
      .onConflictDoUpdate({ target: [registration.carrier, registration.country], set: values }).returning({ id: registration.id })
    await database.insert(registrationStep).values({ id: uuid(), registrationId, at: now, kind: 'handed-in', words: '', colleagueId: asker.id })
    await note('papers-handed-in', asker.id, now, { carrier, country })
  })
}

async function mustNotLieThere(carrier: string, country: string): Promise<void> {
  const [there] = await tx(database => database.select({ state: registration.state }).from(registration)
    .where(and(eq(registration.carrier, carrier), eq(registration.country, country))).for('update'))
  if (there?.state === 'handed-in')
    throw conflict('papers-lie-there', 'They lie there', 'The carrier has not answered yet. What is changed meanwhile can be handed in after it has.')
}

/** Writes down what a carrier has said of papers that were brought to it by hand. */
export async function noteWord(asker: SignedIn, id: string, { kind, words, ref }: PapersWordForm, now: Date): Promise<void> {
  mustEditPapers(asker)
  await tx(async (database) => {
    const [found] = await database.select().from(registration).where(eq(registration.id, id)).for('update')
    if (!found) throw notFound('registration')
    if (carrierRegistered(found.carrier)?.papers)
      throw conflict('says-so-itself', 'It says so itself', 'This carrier tells by itself what it thinks of papers.')
    await database.update(registration).set({ state: kind, answeredAt: now, ...ref && { ref } }).where(eq(registration.id, id))
    await database.insert(registrationStep).values({ id: uuid(), registrationId: id, at: now, kind, words, colleagueId: asker.id })
    await note('papers-answered', asker.id, now, { carrier: found.carrier, country: found.country, answer: kind })
  })
}
