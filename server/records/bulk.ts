import { and, eq, inArray, sql, type SQL } from 'drizzle-orm'
import type { BulkChange, BulkPreview, BulkProgress, BulkState } from '~~/shared/bulk'
import { hasNumbers, MODULE_FACTS, type Module } from '~~/shared/modules'
import type { BulkForm, BulkPreviewForm } from '~~/shared/schemas/list'
import { ask, read, tx } from '../db/door'
import { planned } from '../db/prepared'
import { bulkChange, record } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { addJob } from '../jobs/add'
import { BULK_CHANGE } from '../jobs/kinds'
import { differs } from './bulk-effects'
import { mustFindGroup } from './groups/one'
import { chosenIn } from './list'
import { allStages } from './stages'

const mayEdit = (asker: SignedIn) => visible(asker, 'record.edit', { owner: sql`r.owner_id`, team: sql`r.team_id` })

/** What a change would do, counted before it is done. */
export async function previewBulk(asker: SignedIn, form: BulkPreviewForm, now: Date): Promise<BulkPreview> {
  const change = await soundChange(form)
  const { from, where } = await chosenIn(asker, form.selection, now)
  const { rows: [counts] } = await ask<{ chosen: number, changes: number, allowed: number }>(planned(sql`
    select count(*)::int as chosen, count(*) filter (where ${mayEdit(asker)})::int as allowed,
      count(*) filter (where ${mayEdit(asker)} and ${differs(change)})::int as changes
    from ${from} where ${where}`))
  const { chosen, changes, allowed } = counts!
  return { chosen, changes, alreadySo: allowed - changes, notAllowed: chosen - allowed }
}

/**
 * Begins to change many records. Which ones is settled now; they change piece by piece, so that nobody
 * waits for it. Sending the same again begins nothing more.
 */
export async function startBulk(asker: SignedIn, form: BulkForm, now: Date): Promise<BulkProgress> {
  const change = await soundChange(form)
  const { from, where, order } = await chosenIn(asker, form.selection, now)
  const chosen = sql`select r.id, row_number() over (order by ${order}) as place from ${from} where ${where}`
  return changeThose(asker, { id: form.id, module: form.selection.list.module, change }, chosen, now)
}

/**
 * The same for those whom a query gives, such as the people of a bulk text, of what may be a group of any records.
 *
 * @param chosen a query of `id` and `place`
 */
export async function changeThose(
  asker: SignedIn,
  { id, module, change }: { id: string, module: Module, change: BulkChange },
  chosen: SQL,
  now: Date,
): Promise<BulkProgress> {
  return tx(async (database) => {
    const { rows } = await database.execute<{ id: string }>(planned(sql`
      insert into ${bulkChange} (id, module, colleague_id, change, record_ids, state, made_at)
      select ${id}::uuid, ${module}, ${asker.id}::uuid, ${JSON.stringify(change)}::jsonb,
        array(select r.id from (${chosen}) chosen join ${record} r on r.id = chosen.id where ${mayEdit(asker)} and ${differs(change)}
          order by chosen.place, r.id), 'running', ${now.toISOString()}::timestamptz
      on conflict do nothing returning id`))
    if (rows.length > 0) await goOn(id, now)
    return progressOf(asker, id)
  })
}

/** Goes no further; what has changed stays changed until it is taken back. */
export async function stopBulk(asker: SignedIn, id: string, now: Date): Promise<BulkProgress> {
  return turn(asker, id, ['running'], { state: 'stopped', endedAt: now })
}

/** Gives every record back what it had, unless somebody has changed it again since. */
export async function takeBackBulk(asker: SignedIn, id: string, now: Date): Promise<BulkProgress> {
  return tx(async () => {
    const progress = await turn(asker, id, ['done', 'stopped'], { state: 'taking-back', done: 0, changed: 0, endedAt: null })
    await goOn(id, now)
    return progress
  })
}

async function turn(
  asker: SignedIn,
  id: string,
  from: BulkState[],
  values: Partial<typeof bulkChange.$inferInsert>,
): Promise<BulkProgress> {
  return tx(async (database) => {
    const [turned] = await database
      .update(bulkChange)
      .set(values)
      .where(and(eq(bulkChange.id, id), eq(bulkChange.colleagueId, asker.id), inArray(bulkChange.state, from)))
      .returning({ id: bulkChange.id })
    const progress = await progressOf(asker, id)
    if (!turned) throw conflict('too-late', 'Too late', `This change is ${progress.words} already.`)
    return progress
  })
}

async function goOn(id: string, now: Date): Promise<void> {
  await addJob({ kind: BULK_CHANGE, key: `${id} ${now.getTime()}`, lane: id, payload: { bulkId: id }, dueAt: now })
}

/** My changes of the last day, newest first: those under way, and those that can be taken back. */
export async function recentBulks(asker: SignedIn, now: Date): Promise<BulkProgress[]> {
  const { rows } = await read(database => database.execute<ProgressRow>(sql`${PROGRESS} where colleague_id = ${asker.id}::uuid
    and made_at > ${new Date(now.getTime() - 86_400_000).toISOString()}::timestamptz order by made_at desc limit 5`))
  return rows.map(progress)
}

async function progressOf(asker: SignedIn, id: string): Promise<BulkProgress> {
  const { rows: [found] } = await read(database => database.execute<ProgressRow>(sql`${PROGRESS} where id = ${id}::uuid
    and colleague_id = ${asker.id}::uuid`))
  if (!found) throw notFound('change')
  return progress(found)
}

/** Taking back has as far to go as the change had come. */
const PROGRESS = sql`
  select id, state, done, changed, case when state in ('taking-back', 'taken-back')
    then (select count(*)::int from bulk_change_before b where b.bulk_id = id) else coalesce(cardinality(record_ids), 0) end as total
  from ${bulkChange}`

type ProgressRow = Record<string, unknown> & Omit<BulkProgress, 'words'>

const STATE_WORDS: Record<BulkState, string> = {
  'running': 'under way',
  'done': 'done',
  'stopped': 'stopped',
  'taking-back': 'being taken back',
  'taken-back': 'taken back',
}
const progress = ({ id, state, total, done, changed }: ProgressRow): BulkProgress => ({
  id,
  state,
  total,
  done,
  changed,
  words: STATE_WORDS[state],
})

/** @throws Problem 422 for an owner, a stage or a group that there is not, or into which nobody is put */
async function soundChange({
  change: { kind, ownerId, stageId, tag, groupId },
  selection: {
    list: { module },
  },
}: BulkPreviewForm): Promise<BulkChange> {
  if (kind === 'owner') {
    if (!await colleagueAtWork(ownerId!)) throw badInput({ 'change.ownerId': 'There is no such colleague. Choose one from the list.' })
    return { kind, ownerId: ownerId! }
  }
  if (kind === 'stage') {
    const { many } = MODULE_FACTS[module]
    const stages = await allStages(module)
    if (!stages.some(({ id }) => id === stageId))
      throw badInput({ 'change.stageId': `${many} have no such stage. Choose one of ${stages.map(({ name }) => name).join(', ')}.` })
    return { kind, stageId: stageId! }
  }
  if (kind === 'add-group' || kind === 'remove-group') {
    const group = await mustFindGroup(groupId!)
    if (group.conditions)
      throw badInput({ 'change.groupId': `Who is in ${group.name} is found by its rule. Choose a group by hand.` })
    if (!hasNumbers(module)) throw badInput({ 'change.groupId': `${MODULE_FACTS[module].many} cannot be put into a group.` })
    return { kind, groupId: groupId! }
  }
  return { kind, tag: tag! }
}
