import { and, eq, sql } from 'drizzle-orm'
import { dayAt, dayStart } from '~~/core/hours/days'
import type { ZoneRules } from '~~/core/hours/rules'
import { pacedTo } from '~~/core/plan/answers'
import { mostWhileNew } from '~~/core/plan/new-line'
import type { PlanLine } from '~~/core/plan/plan'
import { countBetween, type PlanRun } from '~~/core/plan/run'
import { ask, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { bulkPerson, bulkText, line } from '../db/schema'
import type { StoredBulk } from './one'

/**
 * The lines of these groups, with their rates and with what other bulk texts that are under way still send over them. Whoever is
 * answered does not wait for those, nor for another day.
 */
export async function planLines(
  bulk: StoredBulk, groups: { lineId: string }[], zone: ZoneRules, now: Date,
): Promise<(PlanLine & { name: string })[]> {
  const { id: bulkId, answersId } = bulk
  const ids = [...new Set(groups.map(({ lineId }) => lineId))]
  return tx(async (database) => {
    const lines = await database.select().from(line).where(sql`${line.id} = any(${uuidArray(ids)})`).orderBy(line.name)
    const others = await database.select({ runs: bulkText.runs }).from(bulkText)
      .where(and(eq(bulkText.state, 'running'), sql`${bulkText.id} <> ${bulkId}::uuid`))
    const runs = others.flatMap(({ runs }) => runs ?? []).map(run => restOf(run, now.getTime())).filter(({ people }) => people > 0)
    const day = dayAt(zone, now.getTime())
    const midnight = dayStart(zone, day)
    const limited = lines.filter(one => one.textsADay !== null || mostWhileNew(one.newSince?.getTime() ?? null, midnight) !== null)
    const sent = await sentSince(limited.map(({ id }) => id), midnight)
    return paced(bulk, lines.map(({ id, name, textsAMinute, textsADay, newSince }) => ({
      id,
      name,
      everyMs: Math.ceil(60_000 / textsAMinute),
      perDay: answersId ? null : textsADay,
      newSince: answersId ? null : newSince?.getTime() ?? null,
      sent: { day, texts: sent.get(id) ?? 0 },
      taken: answersId ? [] : runs.filter(({ lineId }) => lineId === id).map(({ from, everyMs, people }) => ({ from, everyMs, people })),
    })))
  })
}

/** How many texts of bulk texts have gone over each of these lines since an instant. */
async function sentSince(lineIds: string[], since: number): Promise<Map<string, number>> {
  if (lineIds.length === 0) return new Map()
  const { rows } = await ask<{ lineId: string, texts: number }>(sql`
    select p.line_id as "lineId", count(*)::int as texts from ${bulkText} b join ${bulkPerson} p on p.bulk_id = b.id and p.standing = 'texted'
    where b.started_at is not null and coalesce(b.ended_at, 'infinity') >= ${at(since)} and p.line_id = any(${uuidArray(lineIds)}) and p.changed_at >= ${at(since)}
    group by 1`)
  return new Map(rows.map(({ lineId, texts }) => [lineId, texts]))
}

/** What of a run is still to come. */
function restOf(run: PlanRun, now: number): PlanRun {
  const gone = countBetween(run, -Infinity, now)
  return { ...run, from: run.from + gone * run.everyMs, people: run.people - gone }
}

/** No faster than what comes back can be answered, where that is wanted. */
function paced<T extends PlanLine>({ answersAnHour, brought }: StoredBulk, lines: T[]): T[] {
  if (answersAnHour === null) return lines
  const everyMs = pacedTo(answersAnHour, lines.length, brought)
  return lines.map(one => ({ ...one, everyMs: Math.max(one.everyMs, everyMs) }))
}
