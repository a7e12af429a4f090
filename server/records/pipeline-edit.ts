import { and, count, eq, max, notInArray, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { hasManyPipelines, HELD_FACTS, MODULE_FACTS, type Held } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'
import type { PipelineForm } from '~~/shared/schemas/pipeline'
import type { OwnPipeline } from '~~/shared/set-up'
import { ask, tx } from '../db/door'
import { disposition, pipeline, record, recordPerson, stage, view } from '../db/schema'
import { badInput, conflict, notAllowed } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { pipelineById, pipelinesOf } from './pipelines'

const MOST = 30

/** Pipelines with how many stand in each stage, of those that the asker may see. */
export async function listPipelines(asker: SignedIn, holds: Held): Promise<OwnPipeline[]> {
  const counts = await standing(asker, holds)
  return (await pipelinesOf(holds)).map(({ id, name, stages }) => ({
    id,
    name,
    stages: stages.map(one => ({ ...one, count: counts.get(one.id) ?? 0 })),
    records: counts.get(id) ?? 0,
  }))
}

/** How many stand in each stage, and how many records are in each pipeline: of one for candidates, jobs. */
async function standing(asker: SignedIn, holds: Held): Promise<Map<string, number>> {
  const mine = seesRecord(asker, 'r')
  const { rows } = await ask<{ id: string, count: number }>(holds === 'applicant'
    ? sql`
      select x.stage_id as id, count(*)::int as count from ${record} r join ${recordPerson} x on x.record_id = r.id
        where r.module = 'job' and x.stage_id is not null and ${mine} group by 1
      union all select r.pipeline_id, count(*)::int from ${record} r where r.module = 'job' and r.pipeline_id is not null and ${mine}
        group by 1`
    : sql`
      with standing as (select r.stage_id, count(*)::int as count from ${record} r where r.module = ${holds} and r.stage_id is not null
        and ${mine} group by 1)
      select stage_id as id, count from standing
      union all select s.pipeline_id, sum(count)::int from standing join ${stage} s on s.id = stage_id group by 1`)
  return new Map(rows.map(row => [row.id, row.count]))
}

export async function addPipeline(asker: SignedIn, form: PipelineForm, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  const { id, holds, name } = form
  if (!hasManyPipelines(holds)) throw badInput({ name: `${HELD_FACTS[holds].many} go through one row of stages. Change that one.` })
  return tx(async (database) => {
    const [there] = await database.select({ count: count(), last: max(pipeline.position) }).from(pipeline).where(eq(pipeline.holds, holds))
    if (there!.count >= MOST) throw badInput({ name: `There are ${MOST} pipelines at most. Remove one that nobody uses.` })
    await mustBeNew(form)
    const made = await database
      .insert(pipeline)
      .values({ id, holds, name, position: (there!.last ?? -1) + 1 })
      .onConflictDoNothing()
      .returning()
    if (made.length > 0) {
      await saveStages(form)
      await note('pipeline-made', asker.id, now, { holds, name })
    }
    return listPipelines(asker, holds)
  })
}

/**
 * Renames, orders, adds and removes stages. What stands in a stage stays in it, whatever it is called.
 *
 * @throws Problem 422 at a stage that is taken away while somebody or something stands in it, or something asks for it
 */
export async function changePipeline(asker: SignedIn, id: string, form: PipelineForm, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const before = await held(id)
    if (before.holds !== form.holds)
      throw badInput({ name: `A pipeline stays with what it holds: ${HELD_FACTS[before.holds].many.toLowerCase()}.` })
    await mustBeNew(form)
    const kept = new Set(form.stages.map(one => one.id))
    await mustNotBeUsed(asker, before, before.stages.filter(one => !kept.has(one.id)))
    await database.update(pipeline).set({ name: form.name }).where(eq(pipeline.id, id))
    await database.delete(stage).where(and(eq(stage.pipelineId, id), notInArray(stage.id, [...kept])))
    await saveStages({ ...form, id })
    await note('pipeline-changed', asker.id, now, {
      holds: form.holds,
      name: form.name,
      from: sayStages(before.stages),
      to: sayStages(form.stages),
    })
    return listPipelines(asker, form.holds)
  })
}

/** @throws Problem 409 while records stand in it, or if it is the last of its kind */
export async function removePipeline(asker: SignedIn, id: string, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const { holds, name, stages } = await held(id)
    const { one, many } = holds === 'applicant' ? MODULE_FACTS.job : HELD_FACTS[holds]
    const all = await listPipelines(asker, holds)
    const used = all.find(each => each.id === id)!.records
    if (used > 0)
      throw conflict(
        'in-use',
        'Still in use',
        `${used} ${used === 1 ? one.toLowerCase() : many.toLowerCase()} ${used === 1 ? 'is' : 'are'} in “${name}”. Put them into another pipeline first.`,
      )
    if (all.length === 1)
      throw conflict(
        'last-one',
        'The last one',
        `It is the only pipeline for ${HELD_FACTS[holds].many.toLowerCase()}. Make another one first, or change this one.`,
      )
    const users = await usersOf(stages)
    if (users.length > 0)
      throw conflict(
        'in-use',
        'Still in use',
        `${users.join(', ')} ${users.length === 1 ? 'asks' : 'ask'} for a stage of “${name}”. Take it out there first.`,
      )
    await database.delete(pipeline).where(eq(pipeline.id, id))
    await note('pipeline-removed', asker.id, now, { holds, name })
    return listPipelines(asker, holds)
  })
}

const sayStages = (stages: { name: string }[]) => stages.map(({ name }) => name).join(', ')

/** @throws Problem 422 for the id of a stage of another pipeline */
async function saveStages({ id: pipelineId, stages }: PipelineForm): Promise<void> {
  await tx(async (database) => {
    for (const [position, { id, name, over }] of stages.entries()) {
      const [saved] = await database.insert(stage).values({ id, pipelineId, name, over, position })
        .onConflictDoUpdate({ target: stage.id, set: { name, over, position }, setWhere: eq(stage.pipelineId, pipelineId) }).returning()
      if (!saved) throw badInput({ stages: `“${name}” is a stage of another pipeline. Take it away here, and add a new one.` })
    }
  })
}

/** Nobody else changes it until this is done. */
async function held(id: string): Promise<Pipeline> {
  await tx(database => database.select().from(pipeline).where(eq(pipeline.id, id)).for('update'))
  return pipelineById(id)
}

async function mustBeNew({ id, holds, name }: PipelineForm): Promise<void> {
  const same = (await pipelinesOf(holds)).find(one => one.id !== id && one.name.toLowerCase() === name.toLowerCase())
  if (same) throw badInput({ name: `There is a pipeline “${same.name}” already. Give this one another name.` })
}

async function mustNotBeUsed(asker: SignedIn, { holds }: Pipeline, lost: Stage[]): Promise<void> {
  if (lost.length === 0) return
  const counts = await standing(asker, holds)
  for (const one of lost) {
    const standingHere = counts.get(one.id) ?? 0
    if (standingHere > 0)
      throw badInput({
        stages: `${standingHere} still ${standingHere === 1 ? 'stands' : 'stand'} in “${one.name}”. Move ${standingHere === 1 ? 'it' : 'them'} to another stage first.`,
      })
    const users = await usersOf([one])
    if (users.length > 0)
      throw badInput({ stages: `${users.join(', ')} ${users.length === 1 ? 'asks' : 'ask'} for “${one.name}”. Take it out there first.` })
  }
}

/** The kept lists and dispositions that speak of one of these stages. */
async function usersOf(stages: Stage[]): Promise<string[]> {
  const anyOf = stages.map(({ id }) => id).join('|')
  return tx(async (database) => {
    const views = await database.select({ name: view.name }).from(view).where(sql`${view.conditions}::text ~ ${anyOf}`).orderBy(view.name)
    const dispositions = await database
      .selectDistinct({ name: disposition.name })
      .from(disposition)
      .where(sql`${disposition.effects}::text ~ ${anyOf}`)
      .orderBy(disposition.name)
    return [...views.map(({ name }) => `the list “${name}”`), ...dispositions.map(({ name }) => `the disposition “${name}”`)]
  })
}

function mustAdminister(asker: SignedIn): void {
  if (!can(asker, 'pipeline.edit', {})) throw notAllowed('change pipelines; an admin does')
}
