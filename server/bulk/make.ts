import { isDeepStrictEqual } from 'node:util'
import { and, eq, inArray, ne, sql } from 'drizzle-orm'
import { afterStep } from '~~/core/bulk/states'
import { checkTemplate } from '~~/core/template/check'
import { readAnswers } from '~~/core/template/fill-ins'
import { MOST_IN_BULK, type AddedToBulk } from '~~/shared/bulk-texts'
import { hasNumbers, type Module, type TextedModule } from '~~/shared/modules'
import { can } from '~~/shared/permissions'
import type { BulkWhom, MakeBulkForm, WriteBulkForm } from '~~/shared/schemas/bulk-text'
import { ask, tx } from '../db/door'
import { planned } from '../db/prepared'
import { uuidArray } from '../db/instants'
import { bulkText, record } from '../db/schema'
import { badInput, conflict, notAllowed } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { catalogueOf } from '../templates/catalogue'
import { mustSeeTemplate } from '../templates/templates'
import { linesOf } from '../texting/lines'
import { mustBeUnsent } from '../texting/pictures'
import { announceBulk, mustHoldBulk, mustSeeBulk, type StoredBulk } from './one'
import { peopleFor } from './whom'

/** Begins a bulk text to those who are chosen now. Making the same again gives the first. */
export async function makeBulk(asker: SignedIn, { id, name, besideId, ...whom }: MakeBulkForm, now: Date): Promise<{ id: string }> {
  if (!can(asker, 'bulk.work', { ownerId: asker.id })) throw notAllowed('text many at once. Ask an admin for that')
  const ids = await idsOf(asker, whom, now)
  if (ids.length === 0) throw badInput({ selection: 'Nobody is there to be texted. Choose others.' })
  mustBeFew(ids.length)
  return tx(async (database) => {
    const beside = besideId ? await mustSeeBulk(asker, besideId) : null
    const [made] = await database
      .insert(bulkText)
      .values({
        id, name, modules: await modulesOf(ids), madeBy: asker.id, madeAt: now, recordIds: ids, groupId: whom.groupId, whom, occasionId: id,
        ...beside && { occasionId: beside.occasionId, occasion: beside.occasion, place: beside.place, eventAt: beside.eventAt },
        // whoever asks is answered on the number from which they wrote, however lately they were texted
        ...whom.whoAsk && { answersId: whom.whoAsk.bulkId, numberWay: 'answered' as const, latelyDays: 0 },
      })
      .onConflictDoNothing()
      .returning({ id: bulkText.id, madeBy: bulkText.madeBy })
    if (!made) return { id }
    await note('bulk-made', asker.id, now, { bulkId: id, name, people: ids.length })
    announceBulk(made)
    return { id }
  })
}

/**
 * Puts more people into one that has not been started: whoever is in it already counts once.
 *
 */
export async function addToBulk(asker: SignedIn, id: string, whom: BulkWhom, now: Date): Promise<AddedToBulk> {
  const ids = await idsOf(asker, whom, now)
  return tx(async (database) => {
    const found = await mustHoldBulk(asker, id)
    mustBeOpen(found.state)
    const [{ recordIds } = { recordIds: [] }] = await database
      .select({ recordIds: bulkText.recordIds }).from(bulkText).where(eq(bulkText.id, id))
    const known = new Set(recordIds)
    const added = ids.filter(one => !known.has(one))
    mustBeFew(known.size + added.length)
    if (added.length > 0) {
      await database.update(bulkText)
        .set({ recordIds: sql`${bulkText.recordIds} || ${uuidArray(added)}`, modules: await modulesOf([...known, ...added]), state: 'draft' })
        .where(eq(bulkText.id, id))
      announceBulk(found)
    }
    return { added: added.length, again: ids.length - added.length, people: known.size + added.length }
  })
}

/**
 * Writes what it says, to which numbers and over which line. What was checked before is checked anew.
 *
 * @throws Problem 422 at the field; 409 once it has been started
 */
export async function writeBulk(asker: SignedIn, id: string, form: WriteBulkForm, now: Date): Promise<void> {
  const { modules, pictureIds: had } = await mustSeeBulk(asker, id)
  const [wrong] = checkTemplate(form.body, await catalogueOf(modules, form.fillIns))
  if (wrong) throw badInput({ body: `Line ${wrong.line}, character ${wrong.column}: ${wrong.message}` })
  const answers = readAnswers(form.fillIns, form.answers)
  if (!answers.ok) throw badInput(Object.fromEntries(Object.entries(answers.problems).map(([key, reason]) => [`answers.${key}`, reason])))
  const line = form.lineId ? (await linesOf(asker)).find(one => one.id === form.lineId) : null
  if (line === undefined || line?.active === false) throw badInput({ lineId: 'This line cannot be used. Choose another one.' })
  await mustBeUnsent(asker, form.pictureIds.filter(one => !had.includes(one)))
  if (form.templateId) await mustSeeTemplate(asker, form.templateId)
  if (form.eventAt !== null && form.eventAt <= now.getTime()) throw badInput({ eventAt: 'This moment has passed. Choose one to come, or none.' })
  await tx(async (database) => {
    const found = await mustHoldBulk(asker, id)
    mustBeOpen(found.state)
    const { eventAt, ...rest } = form
    const written = { ...rest, eventAt: eventAt === null ? null : new Date(eventAt) }
    await database.update(bulkText)
      .set({ ...written, state: 'draft', checked: 0, turn: found.turn + 1, wording: found.wording + (saysTheSame(found, written) ? 0 : 1) })
      .where(eq(bulkText.id, id))
    await sayOccasion(found, written)
    announceBulk(found)
  })
}

/** The other audiences that have not been started are about the same occasion, and say so. */
async function sayOccasion({ id, occasionId }: StoredBulk, { occasion, place, eventAt }: Said): Promise<void> {
  await tx(database => database.update(bulkText).set({ occasion, place, eventAt })
    .where(and(eq(bulkText.occasionId, occasionId), ne(bulkText.id, id), inArray(bulkText.state, ['draft', 'checking', 'checked']))))
}

type Said = Pick<StoredBulk, 'body' | 'answers' | 'occasion' | 'place' | 'eventAt'>

/** Whether what somebody was written alone still goes with what all the others get. */
const saysTheSame = (...said: [Said, Said]): boolean => isDeepStrictEqual(...said.map(({ body, answers, occasion, place, eventAt }) =>
  [body, answers, occasion, place, eventAt?.getTime()]) as [unknown, unknown])

function mustBeOpen(state: Parameters<typeof afterStep>[0]): void {
  if (afterStep(state, 'write') === null)
    throw conflict('started', 'Started already', 'It has been started, so its wording and its people stay as they are. Make another one.')
}

function mustBeFew(people: number): void {
  if (people > MOST_IN_BULK)
    throw badInput({
      selection: `A bulk text has ${MOST_IN_BULK.toLocaleString('en-US')} people at most. Choose fewer, by place or stage perhaps, and make several.`,
    })
}

async function idsOf(asker: SignedIn, whom: BulkWhom, now: Date): Promise<string[]> {
  const people = await peopleFor(asker, whom, now)
  const { rows } = await ask<{ id: string }>(planned(sql`
    select id from (${people}) chosen order by place, id limit ${sql.raw(String(MOST_IN_BULK + 1))}`))
  return rows.map(({ id }) => id)
}

/** What they are, most of them first: a field that some of them do not have cannot be filled. */
async function modulesOf(ids: string[]): Promise<TextedModule[]> {
  const { rows } = await ask<{ module: Module }>(sql`
    select r.module from ${record} r where r.id = any(${uuidArray(ids)}) group by 1 order by count(*) desc, 1`)
  return rows.map(({ module }) => module).filter(hasNumbers)
}
