import { and, count, eq, max, sql } from 'drizzle-orm'
import { isGroup, type Conditions } from '~~/core/conditions/conditions'
import { can } from '~~/shared/permissions'
import { MODULE_FACTS, type PipelineModule } from '~~/shared/modules'
import type { PipelineForm } from '~~/shared/schemas/pipeline'
import type { OwnPipeline } from '~~/shared/set-up'
import { once, tx } from '../db/door'
import { pipeline, record, recordPerson, view } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../identity/visible'
import { allStages } from './stages'

type StoredPipeline = typeof pipeline.$inferSelect

const MOST = 30

/** A module's pipelines with how many records stand in each stage, of those that the asker may see. */
export async function listPipelines(asker: SignedIn, module: PipelineModule): Promise<OwnPipeline[]> {
  const counts = await standing(asker, module)
  const pipelines = await tx(database => database.select().from(pipeline).where(eq(pipeline.module, module)).orderBy(pipeline.position))
  return pipelines.map(({ id, name, stages, over }) => ({ id, name, stages: stages.map(stage => ({ name: stage, over: over.includes(stage), count: counts.get(`${id} ${stage}`) ?? 0 })), records: counts.get(id) ?? 0 }))
}

/** How many stand in a pipeline, and in each of its stages: deals themselves, or the candidates of jobs. */
async function standing(asker: SignedIn, module: PipelineModule): Promise<Map<string, number>> {
  const { rows } = await once<{ id: string, stage: string | null, records: number, standing: number }>(module === 'deal'
    ? sql`select pipeline_id as id, stage, count(*)::int as records, count(*)::int as standing from ${record} where module = 'deal' and pipeline_id is not null and ${visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })} group by 1, 2`
    : sql`
      select j.pipeline_id as id, x.stage, count(distinct j.id)::int as records, count(x.person_id)::int as standing
      from ${record} j left join ${recordPerson} x on x.record_id = j.id where j.module = 'job' and j.pipeline_id is not null and ${visible(asker, 'record.see', { owner: sql`j.owner_id`, team: sql`j.team_id` })} group by grouping sets ((1, 2), (1))`)
  const counts = new Map<string, number>()
  for (const { id, stage, records, standing: here } of rows) {
    if (stage !== null) counts.set(`${id} ${stage}`, here)
    if (module === 'deal') counts.set(id, (counts.get(id) ?? 0) + records)
    else counts.set(id, Math.max(counts.get(id) ?? 0, records))
  }
  return counts
}

export async function addPipeline(asker: SignedIn, form: PipelineForm, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const [there] = await database.select({ count: count(), last: max(pipeline.position) }).from(pipeline).where(eq(pipeline.module, form.module))
    if (there!.count >= MOST) throw badInput({ name: `There are ${MOST} pipelines at most. Remove one that nobody uses.` })
    await mustBeNew(form)
    const made = await database.insert(pipeline).values({ id: form.id, module: form.module, name: form.name, ...stored(form), position: (there!.last ?? -1) + 1 }).onConflictDoNothing().returning()
    if (made.length > 0) await note('pipeline-made', asker.id, now, { module: form.module, name: form.name })
    return listPipelines(asker, form.module)
  })
}

/**
 * Renames, orders, adds and removes stages. What stands in a stage goes along with its new name, and so do
 * kept lists that ask for it.
 *
 * @throws Problem 400 at a stage that is taken away while somebody or something stands in it
 */
export async function changePipeline(asker: SignedIn, id: string, form: PipelineForm, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const before = await held(id)
    if (before.module !== form.module) throw badInput({ name: 'A pipeline stays with its module.' })
    await mustBeNew(form)
    await mustKeepUsed(asker, before, form)
    const stagesBefore = await allStages(before.module)
    await database.update(pipeline).set({ name: form.name, ...stored(form) }).where(eq(pipeline.id, id))
    const renamed = form.stages.filter(({ was, name }) => was !== null && was !== name && before.stages.includes(was)).map(({ was, name }) => ({ was: was!, name }))
    await renameStanding(before, renamed)
    if (before.module === 'deal') {
      await database.update(record).set({ over: sql`coalesce(stage in (select jsonb_array_elements_text(${JSON.stringify(stored(form).over)}::jsonb)), false)` }).where(and(eq(record.module, 'deal'), eq(record.pipelineId, id)))
      const after = await allStages('deal')
      await renameInViews(renamed.filter(({ was }) => stagesBefore.includes(was) && !after.includes(was)))
    }
    await note('pipeline-changed', asker.id, now, { module: form.module, name: form.name, from: before.stages.join(', '), to: stored(form).stages.join(', ') })
    return listPipelines(asker, form.module)
  })
}

/** @throws Problem 409 while records stand in it, or if it is the module's last */
export async function removePipeline(asker: SignedIn, id: string, now: Date): Promise<OwnPipeline[]> {
  mustAdminister(asker)
  return tx(async (database) => {
    const { module, name } = await held(id)
    const many = MODULE_FACTS[module].many.toLowerCase()
    const all = await listPipelines(asker, module)
    const used = all.find(one => one.id === id)!.records
    if (used > 0) throw conflict('in-use', 'Still in use', `${used} ${used === 1 ? MODULE_FACTS[module].one.toLowerCase() : many} ${used === 1 ? 'is' : 'are'} in “${name}”. Put them into another pipeline first.`)
    if (all.length === 1) throw conflict('last-one', 'The last one', `It is the only pipeline for ${many}. Make another one first, or change this one.`)
    await database.delete(pipeline).where(eq(pipeline.id, id))
    await note('pipeline-removed', asker.id, now, { module, name })
    return listPipelines(asker, module)
  })
}

const stored = ({ stages }: PipelineForm) => ({ stages: stages.map(({ name }) => name), over: stages.filter(({ over }) => over).map(({ name }) => name) })

async function held(id: string): Promise<StoredPipeline> {
  const [found] = await tx(database => database.select().from(pipeline).where(eq(pipeline.id, id)).for('update'))
  if (!found) throw notFound('pipeline')
  return found
}

async function mustBeNew({ id, module, name }: PipelineForm): Promise<void> {
  const same = (await tx(database => database.select().from(pipeline).where(eq(pipeline.module, module)))).find(one => one.id !== id && one.name.toLowerCase() === name.toLowerCase())
  if (same) throw badInput({ name: `There is a pipeline “${same.name}” already. Give this one another name.` })
}

async function mustKeepUsed(asker: SignedIn, { id, module, stages }: StoredPipeline, form: PipelineForm): Promise<void> {
  const kept = form.stages.map(({ was }) => was)
  const counts = await standing(asker, module)
  const lost = stages.filter(stage => !kept.includes(stage)).map(stage => ({ stage, count: counts.get(`${id} ${stage}`) ?? 0 })).find(one => one.count > 0)
  if (lost) throw badInput({ stages: `${lost.count} still ${lost.count === 1 ? 'stands' : 'stand'} in “${lost.stage}”. Move ${lost.count === 1 ? 'it' : 'them'} to another stage first.` })
}

/** In one statement each, so that two stages can change their names with each other. */
async function renameStanding({ id, module }: StoredPipeline, renamed: { was: string, name: string }[]): Promise<void> {
  if (renamed.length === 0) return
  const names = sql`jsonb_to_recordset(${JSON.stringify(renamed)}::jsonb) as n (was text, name text)`
  await once(module === 'deal'
    ? sql`update ${record} set stage = n.name from ${names} where module = 'deal' and pipeline_id = ${id}::uuid and stage = n.was`
    : sql`update ${recordPerson} x set stage = n.name from ${names}, ${record} j where j.module = 'job' and j.pipeline_id = ${id}::uuid and x.record_id = j.id and x.stage = n.was`)
}

async function renameInViews(renamed: { was: string, name: string }[]): Promise<void> {
  if (renamed.length === 0) return
  const names = new Map(renamed.map(({ was, name }) => [was, name]))
  await tx(async (database) => {
    for (const one of await database.select().from(view).where(eq(view.module, 'deal'))) {
      const conditions = withNames(one.conditions, names)
      if (JSON.stringify(conditions) !== JSON.stringify(one.conditions)) await database.update(view).set({ conditions }).where(eq(view.id, one.id))
    }
  })
}

function withNames({ match, of }: Conditions, names: Map<string, string>): Conditions {
  return { match, of: of.map(one => isGroup(one) ? withNames(one, names) : one.field === 'stage' && Array.isArray(one.value) ? { ...one, value: one.value.map(stage => names.get(stage) ?? stage) } : one) }
}

function mustAdminister(asker: SignedIn): void {
  if (!can(asker, 'pipeline.edit', {})) throw notAllowed('change pipelines; an admin does')
}
