import { and, eq } from 'drizzle-orm'
import type { RequestForm } from '~~/shared/schemas/calling'
import { tx } from '../db/door'
import { activity, activityOnRecord, requestSettled } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'
import { authorize } from '../records/one'
import { addTask } from './tasks'

/**
 * What becomes of what somebody asked for in a text: a task, or nothing. Whoever says so first has said it.
 *
 * @throws Problem 404 for a text that is not on this record, 422 as for any task
 */
export async function settleRequest(asker: SignedIn, recordId: string, { activityId, task }: RequestForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const { ownerId, teamId } = await authorize(asker, 'record.edit', recordId)
    const [on] = await database.select({ id: activity.id }).from(activity)
      .innerJoin(activityOnRecord, and(eq(activityOnRecord.activityId, activity.id), eq(activityOnRecord.recordId, recordId)))
      .where(and(eq(activity.id, activityId), eq(activity.kind, 'text-in')))
    if (!on) throw notFound('text')
    const first = await database.insert(requestSettled).values({ activityId, colleagueId: asker.id, at: now })
      .onConflictDoNothing()
      .returning()
    if (first.length === 0) return
    if (task) {
      await addTask(asker, recordId, task, now)
      await database.update(requestSettled).set({ taskId: task.id }).where(eq(requestSettled.activityId, activityId))
    }
    announce({ kind: 'entry', recordId, activityId }, 'record.see', [{ ownerId, teamId }])
  })
}
