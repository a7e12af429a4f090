import { and, eq, sql } from 'drizzle-orm'
import type { PaceChange } from '~~/core/bulk/states'
import { waitsForAnswers } from '~~/core/plan/answers'
import type { BulkPace } from '~~/shared/bulk-texts'
import { ask, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { bulkPace, bulkPerson, bulkText, conversation } from '../db/schema'
import { conflict } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { announceBulk, mustHoldBulk, type StoredBulk } from './one'
import { goOn } from './run'

/** So often it is counted how many wait for an answer. */
const LOOK_MS = 15_000

/**
 * Goes by so many answers an hour from now on, or as fast as the lines allow. One that is under way is planned anew.
 *
 * @throws Problem 409 where nothing of it is to come
 */
export async function setPace(asker: SignedIn, id: string, answersAnHour: number | null, now: Date): Promise<void> {
  await tx(async (database) => {
    const bulk = await mustHoldBulk(asker, id)
    if (bulk.state !== 'running' && bulk.state !== 'paused')
      throw conflict('not-now', 'Not now', 'Its pace can be changed while it is under way. Before that, it is chosen with the start.')
    await database.update(bulkText).set({ answersAnHour, waitsSince: null }).where(eq(bulkText.id, id))
    await keep({ ...bulk, answersAnHour }, 'set', await waitingOn(id), now)
    await note('bulk-pace', asker.id, now, { bulkId: id, name: bulk.name, answersAnHour })
    if (bulk.state === 'running') await goOn({ ...bulk, answersAnHour }, asker.zone, now)
    announceBulk(bulk)
  })
}

/**
 * Whether it goes by answers and has to wait, because so many of them have piled up: then until when nobody has to look again.
 *
 * @returns `goes`; `goes-on` where it has waited until now, so that it is planned anew; or when to look again
 */
export async function seeToAnswers(bulk: StoredBulk, now: Date): Promise<'goes' | 'goes-on' | Date> {
  const { id, answersAnHour, waitsSince, answersLookedAt } = bulk
  if (answersAnHour === null) return 'goes'
  const next = new Date(now.getTime() + LOOK_MS)
  if (answersLookedAt && now.getTime() - answersLookedAt.getTime() < LOOK_MS) return waitsSince ? new Date(answersLookedAt.getTime() + LOOK_MS) : 'goes'
  const waiting = await waitingOn(id)
  const waits = waitsForAnswers(waitsSince !== null, waiting, answersAnHour)
  const changes = waits !== (waitsSince !== null)
  await tx(async (database) => {
    await database.update(bulkText)
      .set({ answersLookedAt: now, ...(changes && { waitsSince: waits ? now : null }) })
      .where(and(eq(bulkText.id, id), eq(bulkText.turn, bulk.turn)))
    if (!changes) return
    await keep(bulk, waits ? 'waits' : 'goes-on', waiting, now)
    announceBulk(bulk)
  })
  return waits ? next : changes ? 'goes-on' : 'goes'
}

/** How many of those who have answered wait for an answer of ours. */
async function waitingOn(bulkId: string): Promise<number> {
  const { rows: [found] } = await ask<{ people: number }>(sql`
    select count(*)::int as people from ${bulkPerson} p where p.bulk_id = ${bulkId}::uuid and p.standing = 'texted' and p.answered_at is not null
      and exists (select 1 from ${conversation} v where v.remote = p.e164 and v.waits_since is not null)`)
  return found!.people
}

const keep = ({ id: bulkId, answersAnHour }: StoredBulk, what: PaceChange, waiting: number, now: Date) =>
  tx(database => database.insert(bulkPace).values({ bulkId, at: now, what, waiting, anHour: answersAnHour }).onConflictDoNothing())

/** How its pace has changed and why, the newest first. */
export async function paceOf(bulkId: string): Promise<BulkPace[]> {
  const { rows } = await ask<BulkPace & Record<string, unknown>>(sql`
    select ${milliseconds(sql`p.at`)} as at, p.what, p.waiting, p.an_hour as "anHour" from ${bulkPace} p
    where p.bulk_id = ${bulkId}::uuid order by p.at desc limit 50`)
  return rows
}
