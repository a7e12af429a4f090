import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { holdsPeople, isPersonModule, MODULE_FACTS } from '~~/shared/modules'
import { tx } from '../db/door'
import { recordPerson } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'
import { fillBack } from '../activity/fill-back'
import { authorize, type StoredRecord } from './one'
import { pipelineById } from './pipelines'

/**
 * Puts a person on a deal, a job, a case or something with a day; a candidate begins at the first stage of
 * the job's pipeline. What happened with the person since the record was made comes onto its timeline.
 * Doing it twice changes nothing.
 *
 * @param by the file that does it, if one does
 * @throws Problem 404 for what may not be seen, 422 for what takes no people
 */
export async function putOn(asker: SignedIn, recordId: string, personId: string, now: Date, by: { importId?: string } = {}): Promise<void> {
  await tx(async (database) => {
    const { on, person } = await pair(asker, recordId, personId)
    const stageId = on.module === 'job' && on.pipelineId ? (await pipelineById(on.pipelineId)).stages[0]!.id : null
    const [put] = await database
      .insert(recordPerson)
      .values({ recordId, personId, stageId, stageSince: stageId ? now : null, madeAt: now })
      .onConflictDoNothing()
      .returning()
    if (!put) return
    await tell(asker, 'put-on', on, person, now, by)
    await fillBack(recordId, personId, on.madeAt, now)
  })
}

/** Takes a person off it again. What was said meanwhile stays on its timeline. */
export async function takeOff(asker: SignedIn, recordId: string, personId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const { on, person } = await pair(asker, recordId, personId)
    const [off] = await database
      .delete(recordPerson)
      .where(and(eq(recordPerson.recordId, recordId), eq(recordPerson.personId, personId)))
      .returning()
    if (off) await tell(asker, 'taken-off', on, person, now)
  })
}

async function pair(asker: SignedIn, recordId: string, personId: string): Promise<{ on: StoredRecord, person: StoredRecord }> {
  const on = await authorize(asker, 'record.edit', recordId)
  const person = await authorize(asker, 'record.see', personId)
  if (!holdsPeople(on.module))
    throw badInput({
      personId: `Nobody is put on ${MODULE_FACTS[on.module].many.toLowerCase()}. Open a deal, a job, a case or something with a day.`,
    })
  if (!isPersonModule(person.module)) throw badInput({ personId: 'Only people can be put on it. Choose a lead, a candidate or a client.' })
  return { on, person }
}

/** One entry, on both timelines. */
async function tell(
  asker: SignedIn,
  kind: 'put-on' | 'taken-off',
  on: StoredRecord,
  person: StoredRecord,
  now: Date,
  by: { importId?: string } = {},
): Promise<void> {
  await appendEntry(
    { id: uuid(), at: now, kind, colleagueId: asker.id, data: { module: on.module, ...by }, content: { on: on.name, person: person.name } },
    [on.id, person.id],
  )
  for (const one of [on, person]) announce({ kind: 'record', recordId: one.id }, 'record.see', [one])
}
