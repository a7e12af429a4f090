import { and, eq, sql } from 'drizzle-orm'
import { CHOICE_OF_PIPELINE, type Module } from '~~/shared/modules'
import type { Choice, ListColumn, View } from '~~/shared/list'
import { can } from '~~/shared/permissions'
import type { ViewForm } from '~~/shared/schemas/list'
import { read, tx } from '../db/door'
import { colleague, record, view } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord, visible } from '../reading/visible'
import { OWN, sqlColumnsOf } from './columns'
import { ownFields } from './fields'
import { allGroups } from './groups/one'
import { conditionsOf } from './list'
import { pipelinesOf } from './pipelines'
import { indexSortedFields } from './sorted-fields'
import { allStages } from './stages'

const MOST_TAGS = 200

/** The columns of a module's lists, with the choices of those that have some. */
export async function listColumns(asker: SignedIn, module: Module): Promise<ListColumn[]> {
  const held = CHOICE_OF_PIPELINE[module]
  const choices: Record<string, Choice[]> = {
    stage: (await allStages(module)).map(({ id, name }) => ({ value: id, label: name })),
    pipeline: held ? (await pipelinesOf(held)).map(({ id, name }) => ({ value: id, label: name })) : [],
    owner: await read(database =>
      database
        .select({ value: colleague.id, label: colleague.name })
        .from(colleague)
        .orderBy(sql`${colleague.name} collate "und-x-icu"`),
    ),
    ...Object.fromEntries(
      (await ownFields())
        .filter(field => field.module === module && field.kind === 'choice')
        .map(({ key, options }) => [`own.${key}`, options.map(option => ({ value: option, label: option }))]),
    ),
    tags: (await tagsOf(asker, module)).map(tag => ({ value: tag, label: tag })),
    groups: (await allGroups())
      .filter(one => one.module === null || one.module === module)
      .map(({ id, name }) => ({ value: id, label: name })),
  }
  return [...(await sqlColumnsOf(asker, module)).values()].map(({ key, label, kind, shows }) => ({
    key,
    label,
    kind,
    shows,
    ...(choices[key] && { choices: choices[key] }),
  }))
}

/** Every tag on a record that this person may see. */
async function tagsOf(asker: SignedIn, module: Module): Promise<string[]> {
  const { rows } = await read(database => database.execute<{ tag: string }>(sql`
    select distinct tag collate "und-x-icu" as tag from ${record} r, unnest(r.tags) tag
    where r.module = ${module} and r.tags <> '{}' and ${seesRecord(asker, 'r')}
    order by 1 limit ${sql.raw(String(MOST_TAGS))}`))
  return rows.map(({ tag }) => tag)
}

/** Mine first, then my team's, each by name. */
export async function listViews(asker: SignedIn, module: Module): Promise<View[]> {
  const rows = await read(database => database.select({ view, owner: colleague.name })
    .from(view)
    .innerJoin(colleague, eq(colleague.id, view.ownerId))
    .where(and(eq(view.module, module), visible(asker, 'view.see', { owner: view.ownerId, team: view.teamId })))
    .orderBy(sql`${view.ownerId} <> ${asker.id}`, sql`${view.name} collate "und-x-icu"`))
  return rows.map(({ view: { id, name, columns, conditions, sort, direction, ownerId, teamId }, owner }) => ({
    id, name, columns, conditions, sort, direction, shared: teamId !== null, owner, mayEdit: can(asker, 'view.edit', { ownerId, teamId }),
  }))
}

/**
 * Saves a list as it is on screen; under the id of a view there is, it changes that view.
 *
 * @throws Problem 422 for columns or conditions that do not exist, 403 for somebody else's view
 */
export async function saveView(asker: SignedIn, form: ViewForm, now: Date): Promise<void> {
  const columns = await sqlColumnsOf(asker, form.module)
  const unknown = [...form.columns, form.sort].find(key => !columns.has(key))
  if (unknown) throw badInput({ columns: `There is no column “${unknown}” here. Take it away.` })
  const conditions = conditionsOf(form.where, columns)
  const teamId = form.shared ? asker.teamIds[0] : null
  if (teamId === undefined) throw badInput({ shared: 'You are in no team to share it with.' })
  const { id, module, name, sort, direction } = form
  const values = { module, name, columns: form.columns, conditions, sort, direction, teamId }
  await tx(async (database) => {
    const [there] = await database.select().from(view).where(eq(view.id, id)).for('update')
    if (there) await mayEdit(asker, there)
    await database
      .insert(view)
      .values({ ...values, id, ownerId: asker.id, madeAt: now })
      .onConflictDoUpdate({ target: view.id, set: values })
  })
  if (sort.startsWith(OWN)) await indexSortedFields()
}

export async function removeView(asker: SignedIn, id: string): Promise<void> {
  await tx(async (database) => {
    const [there] = await database.select().from(view).where(eq(view.id, id)).for('update')
    if (!there) return
    await mayEdit(asker, there)
    await database.delete(view).where(eq(view.id, id))
  })
}

async function mayEdit(asker: SignedIn, there: typeof view.$inferSelect): Promise<void> {
  if (!can(asker, 'view.see', there) && !can(asker, 'view.edit', there)) throw notFound('view')
  if (!can(asker, 'view.edit', there)) throw notAllowed('change this view; save it under a name of your own')
}
