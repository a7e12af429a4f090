import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { dueOn } from '~~/core/call/due'
import type { WallMoment } from '~~/core/hours/schedule'
import { zoneRules } from '~~/core/hours/zones'
import type { TaskDetail } from '~~/shared/calling'
import { can, type Asker } from '~~/shared/permissions'
import type { ChangeTaskForm, TaskForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, numberState, phone, record, task } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { visible } from '../reading/visible'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { authorize, type StoredRecord } from '../records/one'
import { zonesOf } from '../records/phones'
import { appendEntry } from '../activity/append'

/** The zone by whose clock somebody is called back: where the person is, else where we are. */
export async function zoneOfRecord(asker: SignedIn, recordId: string): Promise<string> {
  const [found] = await read(database =>
    database
      .select({ zone: record.zone, country: record.country, region: record.region, e164: phone.e164 })
      .from(record)
      .leftJoin(phone, eq(phone.recordId, record.id))
      .where(eq(record.id, recordId))
      .orderBy(phone.position)
      .limit(1),
  )
  return (found && zonesOf(found, found.e164)[0]) ?? asker.zone
}

interface NewTask {
  id: string
  recordId: string
  kind: 'task' | 'call-back'
  title: string
  due: WallMoment & { instant: number }
  callId: string | null
}

/** Writes a task and its entry. */
export async function makeTask(asker: SignedIn, { id, recordId, kind, title, due, callId }: NewTask, now: Date): Promise<void> {
  await tx(async (database) => {
    const made = await database
      .insert(task)
      .values({
        id,
        recordId,
        kind,
        title,
        colleagueId: asker.id,
        madeBy: asker.id,
        madeAt: now,
        wallTime: due.wallTime,
        wallZone: due.zone,
        dueAt: new Date(due.instant),
        callId,
      })
      .onConflictDoNothing()
      .returning()
    if (made.length === 0) return
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'task-made',
        colleagueId: asker.id,
        data: { kind, wallTime: due.wallTime, zone: due.zone, ...(callId && { callId }) },
        words: title,
      },
      [recordId],
    )
    await announceTask(recordId)
  })
}

/** @throws Problem 422 for a day or a time that there is not */
export async function addTask(asker: SignedIn, recordId: string, form: TaskForm, now: Date): Promise<void> {
  await tx(async () => {
    await authorize(asker, 'record.edit', recordId)
    const due = dueOn(form.day, form.time, zoneRules(await zoneOfRecord(asker, recordId))!)
    await makeTask(asker, { id: form.id, recordId, kind: form.kind, title: form.title, due, callId: null }, now)
  })
}

/** Done, or not done after all. */
export async function setDone(asker: SignedIn, taskId: string, done: boolean, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database
      .select({ task, record })
      .from(task)
      .innerJoin(record, eq(record.id, task.recordId))
      .where(eq(task.id, taskId))
      .for('update', { of: task })
    if (!found || !can(asker, 'record.see', found.record)) throw notFound('task')
    if ((found.task.doneAt !== null) === done) return
    await database.update(task).set({ doneAt: done ? now : null }).where(eq(task.id, taskId))
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: done ? 'task-done' : 'task-again',
        colleagueId: asker.id,
        data: { kind: found.task.kind },
        words: found.task.title,
      },
      [found.task.recordId],
    )
    await announceTask(found.task.recordId)
  })
}

/**
 * Puts a task in other words, to another time, or into somebody else's hands.
 *
 * @throws Problem 404 for one that may not be seen, 409 for one that is done, 422 for a moment that there is not or a colleague who
 * could not see it
 */
export async function changeTask(asker: SignedIn, taskId: string, form: ChangeTaskForm, now: Date): Promise<void> {
  const { title, day, time, colleagueId } = form
  await tx(async (database) => {
    const [found] = await database.select({ task, record }).from(task).innerJoin(record, eq(record.id, task.recordId))
      .where(eq(task.id, taskId)).for('update', { of: task })
    if (!found || !can(asker, 'record.see', found.record)) throw notFound('task')
    if (!can(asker, 'record.edit', found.record)) throw notAllowed('change this task')
    if (found.task.doneAt) throw conflict('done', 'Done already', 'It is done already. Make a new task for what is still to do.')
    const due = dueOn(day, time, zoneRules(found.task.wallZone)!)
    const whose = await mayHaveTask(colleagueId, found.record)
    await database.update(task)
      .set({ title, wallTime: due.wallTime, dueAt: new Date(due.instant), colleagueId: whose.id })
      .where(eq(task.id, taskId))
    await appendEntry(
      {
        id: uuid(),
        at: now,
        kind: 'task-changed',
        colleagueId: asker.id,
        data: {
          kind: found.task.kind,
          wallTime: due.wallTime,
          zone: due.zone,
          ...(whose.id !== found.task.colleagueId && { to: whose.firstName }),
        },
        words: title,
      },
      [found.task.recordId],
    )
    await announceTask(found.task.recordId)
  })
}

/** What a colleague has not done in time somebody else does; whoever has it already has it still. */
export async function takeTask(asker: SignedIn, taskId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select({ task, record }).from(task).innerJoin(record, eq(record.id, task.recordId))
      .where(eq(task.id, taskId)).for('update', { of: task })
    if (!found || !can(asker, 'record.see', found.record)) throw notFound('task')
    if (found.task.colleagueId === asker.id) return
    await database.update(task).set({ colleagueId: asker.id }).where(eq(task.id, taskId))
    const { kind, wallTime, wallZone, title } = found.task
    await appendEntry(
      { id: uuid(), at: now, kind: 'task-changed', colleagueId: asker.id, data: { kind, wallTime, zone: wallZone, to: asker.firstName }, words: title },
      [found.task.recordId],
    )
    await announceTask(found.task.recordId)
  })
}

/** A colleague who could see what is to be done. */
async function mayHaveTask(colleagueId: string, on: StoredRecord): Promise<SignedIn> {
  const whose = await colleagueAtWork(colleagueId)
  if (!whose || !can(whose, 'record.see', on)) throw badInput({ colleagueId: 'They cannot see this record. Choose somebody who can.' })
  return whose
}

async function announceTask(recordId: string): Promise<void> {
  const [found] = await read(database =>
    database.select({ ownerId: record.ownerId, teamId: record.teamId }).from(record).where(eq(record.id, recordId)),
  )
  announce({ kind: 'task', recordId }, 'record.see', [found!])
}

/** Whoever has refused calls on every number is called back by nobody; once calls are welcome again, what was promised is due again. */
export const isNotToBeCalled = sql`(
  exists (select 1 from ${phone} p join ${numberState} n on n.e164 = p.e164 where p.record_id = ${record.id} and n.calls = 'refused')
  and not exists (select 1 from ${phone} p left join ${numberState} n on n.e164 = p.e164
    where p.record_id = ${record.id} and p.e164 is not null and n.calls is distinct from 'refused'))`

/** What is still to be done on one record, or by me, the next first. */
export async function openTasks(asker: Asker, which: { recordId: string } | 'mine'): Promise<TaskDetail[]> {
  return read(database =>
    database
      .select({
        id: task.id,
        kind: task.kind,
        title: task.title,
        wallTime: task.wallTime,
        zone: task.wallZone,
        dueAt: milliseconds(task.dueAt).mapWith(Number),
        doneAt: milliseconds(task.doneAt),
        owner: { id: colleague.id, firstName: colleague.firstName },
        record: { id: record.id, name: record.name, module: record.module },
      })
      .from(task)
      .innerJoin(record, and(eq(record.id, task.recordId), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
      .innerJoin(colleague, eq(colleague.id, task.colleagueId))
      .where(and(
        isNull(task.doneAt),
        which === 'mine' ? eq(task.colleagueId, asker.id) : eq(task.recordId, which.recordId),
        sql`(${task.kind} <> 'call-back' or not ${isNotToBeCalled})`,
      ))
      .orderBy(asc(task.dueAt), asc(task.id))
      .limit(200),
  ) as unknown as Promise<TaskDetail[]>
}

/** Takes a task away that a disposition made, before anybody has done it. */
export async function withdrawTask(asker: SignedIn, taskId: string, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const [gone] = await database.delete(task).where(and(eq(task.id, taskId), sql`${task.doneAt} is null`)).returning()
    if (!gone) return false
    await appendEntry(
      { id: uuid(), at: now, kind: 'task-withdrawn', colleagueId: asker.id, data: { kind: gone.kind }, words: gone.title },
      [gone.recordId],
    )
    await announceTask(gone.recordId)
    return true
  })
}
