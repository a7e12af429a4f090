import { and, asc, eq, gt, isNull, lte, sql } from 'drizzle-orm'
import { read } from '../db/door'
import { milliseconds } from '../db/instants'
import { record, task } from '../db/schema'
import { isNotToBeCalled } from './tasks'

/** What was due longer ago stands on Today, and tells nobody any more. */
const LASTS_MS = 3_600_000
const AT_ONCE = 50

/** Calls that were promised for a moment within the last hour and have not been made, of people who may be called. */
export const callBacksDue = (now: Date) => read(database => database
  .select({ id: task.id, title: task.title, colleagueId: task.colleagueId, dueAt: milliseconds(task.dueAt).mapWith(Number) })
  .from(task)
  .innerJoin(record, eq(record.id, task.recordId))
  .where(and(
    isNull(task.doneAt),
    eq(task.kind, 'call-back'),
    lte(task.dueAt, now),
    gt(task.dueAt, new Date(now.getTime() - LASTS_MS)),
    sql`not ${isNotToBeCalled}`,
  ))
  .orderBy(asc(task.dueAt))
  .limit(AT_ONCE))
