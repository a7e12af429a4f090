import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { Stage } from '~~/shared/pipelines'
import type { MoveForm } from '~~/shared/schemas/record'
import { tx } from '../db/door'
import { record, recordPerson } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { appendEntry } from '../activity/append'
import { authorize } from './one'
import { pipelineById } from './pipelines'
import { stagesOf } from './stages'

/**
 * Moves a record to another stage. Where it is there already, nothing happens.
 *
 * @param because what set it off, such as a call: kept with the entry
 * @returns the stage in which it was
 * @throws Problem 409 if somebody has moved it since it was looked at
 */
export async function moveRecord(
  asker: SignedIn,
  recordId: string,
  { stageId, from }: MoveForm,
  now: Date,
  because: object = {},
): Promise<string | null> {
  return tx(async (database) => {
    const before = await authorize(asker, 'record.edit', recordId)
    const stages = await stagesOf(before.module, before.pipelineId)
    const to = among(stages, stageId)
    if (before.stageId === stageId) return stageId
    mustStillBe(stages, before.stageId, from, before.name)
    const [moved] = await database
      .update(record)
      .set({ stageId, stageSince: now, version: sql`${record.version} + 1` })
      .where(and(eq(record.id, recordId), eq(record.version, before.version)))
      .returning()
    if (!moved) throw movedMeanwhile(before.name, null)
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'stage-changed',
        colleagueId: asker.id,
        data: { from: nameIn(stages, before.stageId), to: to.name, ...because },
      },
      [recordId],
    )
    announce({ kind: 'record', recordId }, 'record.see', [moved])
    return before.stageId
  })
}

/**
 * Moves a candidate within a job's pipeline; the candidate's own stage stays as it is.
 *
 * @throws Problem 404 if the person is not on the job, 409 if somebody has moved the person meanwhile
 */
export async function moveOnJob(asker: SignedIn, jobId: string, personId: string, { stageId, from }: MoveForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const job = await authorize(asker, 'record.edit', jobId)
    const person = await authorize(asker, 'record.see', personId)
    const [on] = await database
      .select()
      .from(recordPerson)
      .where(and(eq(recordPerson.recordId, jobId), eq(recordPerson.personId, personId)))
      .for('update')
    if (!on || !job.pipelineId) throw notFound('candidate on this job')
    const { stages } = await pipelineById(job.pipelineId)
    const to = among(stages, stageId)
    if (on.stageId === stageId) return
    mustStillBe(stages, on.stageId, from, person.name)
    await database
      .update(recordPerson)
      .set({ stageId, stageSince: now })
      .where(and(eq(recordPerson.recordId, jobId), eq(recordPerson.personId, personId)))
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'moved-on',
        colleagueId: asker.id,
        data: { from: nameIn(stages, on.stageId), to: to.name },
        content: { on: job.name, person: person.name },
      },
      [personId, jobId],
    )
    for (const one of [job, person]) announce({ kind: 'record', recordId: one.id }, 'record.see', [one])
  })
}

const nameIn = (stages: Stage[], id: string | null): string | null => stages.find(stage => stage.id === id)?.name ?? null

function among(stages: Stage[], stageId: string): Stage {
  const found = stages.find(({ id }) => id === stageId)
  if (!found) throw badInput({ stageId: `It cannot stand in this stage. Choose one of ${stages.map(({ name }) => name).join(', ')}.` })
  return found
}

function mustStillBe(stages: Stage[], is: string | null, from: string | null, name: string): void {
  if (from !== null && is !== from) throw movedMeanwhile(name, nameIn(stages, is))
}

const movedMeanwhile = (name: string, to: string | null) =>
  conflict(
    'moved-meanwhile',
    'Moved meanwhile',
    `Somebody else has moved ${name}${to ? ` to ${to}` : ''} meanwhile. Look again, and move it from there.`,
  )
