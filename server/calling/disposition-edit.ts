import { and, asc, eq, isNull, max, sql } from 'drizzle-orm'
import type { OwnDisposition } from '~~/shared/calling'
import { can } from '~~/shared/permissions'
import type { PersonModule } from '~~/shared/modules'
import type { DispositionForm } from '~~/shared/schemas/disposition'
import { readEffect } from '~~/shared/schemas/effect'
import { tx } from '../db/door'
import { callRound, disposition, line } from '../db/schema'
import { checkEffects, describeEffects } from '../effects/check'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'

/** A module's dispositions in their order, those that are retired last. */
export async function listDispositions(asker: SignedIn, module: PersonModule): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const rows = await database
      .select({ own: disposition, line: line.name, round: callRound.name })
      .from(disposition)
      .leftJoin(line, eq(line.id, disposition.onlyLineId))
      .leftJoin(callRound, eq(callRound.id, disposition.onlyRoundId))
      .where(eq(disposition.module, module))
      .orderBy(sql`${disposition.retiredAt} is not null`, asc(disposition.position), disposition.id)
    const describe = await describeEffects(rows.flatMap(({ own }) => own.effects), module)
    return rows.map(({ own: { id, name, letter, colour, family, effects, onlyLineId, onlyRoundId, retiredAt }, line, round }) => ({
      id, name, letter, colour, family, effects, onlyLineId, onlyRoundId, purpose: line ?? round, retired: retiredAt !== null,
      words: effects.map(describe),
    }))
  })
}

/**
 * Makes a disposition, or changes one. What calls have set off already stays as it was.
 *
 * @throws Problem 422 at what does not fit: a letter that another one has, a template or a stage that the module does not have
 */
export async function saveDisposition(asker: SignedIn, form: DispositionForm, now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const { id, module, name, family, letter, colour, onlyLineId, onlyRoundId } = form
    const [before] = await database.select().from(disposition).where(eq(disposition.id, id))
    if (before && before.module !== module) throw badInput({ name: 'A disposition stays with its module.' })
    const others = (
      await database
        .select()
        .from(disposition)
        .where(and(eq(disposition.module, module), isNull(disposition.retiredAt)))
    ).filter(one => one.id !== id)
    const sameLetter = others.find(one => one.letter === letter)
    if (sameLetter) throw badInput({ letter: `“${sameLetter.name}” has this letter. Give this one another.` })
    if (others.some(one => one.name.toLowerCase() === name.toLowerCase()))
      throw badInput({ name: `There is a disposition “${name}” already. Give this one another name.` })
    const effects = await checkEffects(form.effects.map(readEffect), module)
    const [last] = await database.select({ position: max(disposition.position) }).from(disposition).where(eq(disposition.module, module))
    const kept = { name, family, letter, colour, effects, onlyLineId, onlyRoundId }
    await database.insert(disposition).values({ id, module, ...kept, position: (last?.position ?? -1) + 1 })
      .onConflictDoUpdate({ target: disposition.id, set: kept })
    await note(before ? 'disposition-changed' : 'disposition-made', asker.id, now, {
      module,
      name,
      effects: effects.map(effect => effect.kind).join(', '),
    })
    return listDispositions(asker, module)
  })
}

export async function orderDispositions(asker: SignedIn, module: PersonModule, ids: string[], now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    for (const [position, id] of ids.entries())
      await database
        .update(disposition)
        .set({ position })
        .where(and(eq(disposition.id, id), eq(disposition.module, module)))
    await note('dispositions-ordered', asker.id, now, { module })
    return listDispositions(asker, module)
  })
}

/** @throws Problem 409 when its letter has gone to another one meanwhile */
export async function retireDisposition(asker: SignedIn, id: string, retired: boolean, now: Date): Promise<OwnDisposition[]> {
  mustEdit(asker)
  return tx(async (database) => {
    const [found] = await database.select().from(disposition).where(eq(disposition.id, id)).for('update')
    if (!found) throw notFound('disposition')
    const [holder] = retired
      ? []
      : await database
          .select()
          .from(disposition)
          .where(and(eq(disposition.module, found.module), eq(disposition.letter, found.letter), isNull(disposition.retiredAt)))
    if (holder && holder.id !== id)
      throw conflict(
        'letter-taken',
        'Its letter is taken',
        `“${holder.name}” has the letter ${found.letter.toUpperCase()} now. Give that one another letter first.`,
      )
    await database.update(disposition).set({ retiredAt: retired ? now : null }).where(eq(disposition.id, id))
    await note(retired ? 'disposition-retired' : 'disposition-taken-up', asker.id, now, { module: found.module, name: found.name })
    return listDispositions(asker, found.module)
  })
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'disposition.edit', {})) throw notAllowed('change dispositions; leads and admins do')
}
