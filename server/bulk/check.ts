import { and, eq, sql } from 'drizzle-orm'
import { afterStep } from '~~/core/bulk/states'
import { tx } from '../db/door'
import { bulkPerson, bulkText } from '../db/schema'
import { conflict } from '../http/problem'
import { giveWay } from '../http/quiet'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { crashPoint } from '../jobs/crash-points'
import { CHECK_BULK } from '../jobs/kinds'
import { settle, type Handler } from '../jobs/outbox'
import { announceBulk, lockBulk, mustHoldBulk, type StoredBulk } from './one'
import { readBrought } from './brought'
import { makeJudge, type Judged } from './judge'
import { storeJudged } from './judged'

/** Few enough that others hardly wait. */
const PIECE = 200
/** Of so many what is the same for all is read once. */
const STRETCH = 2_000
/** For so long one claim goes on, well within its lease. */
const STRETCH_MS = 10_000
/** What an earlier check has found is put away in larger ones: nothing has to be worked out for it. */
const PIECE_PUT_AWAY = 500

/** Begins to look at everybody, one by one. */
export async function startCheck(asker: SignedIn, id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustHoldBulk(asker, id)
    const state = afterStep(found.state, 'check')
    if (!state) throw conflict('not-now', 'Not now', 'It is being checked already, or has been started.')
    if (found.body === '') throw conflict('unwritten', 'Nothing is written', 'Write the text first; then everybody can be checked.')
    const turn = found.turn + 1
    await database.update(bulkText).set({ state, turn, checked: 0 }).where(eq(bulkText.id, id))
    await addJob({ kind: CHECK_BULK, key: `${id} ${turn}`, lane: id, payload: { bulkId: id, turn }, dueAt: now })
    announceBulk(found)
  })
}

/** Looks at the people piece by piece. A crash loses no piece and does none twice: each commits with how far it has come. */
export const checkBulks: Handler = async (claims, now) => claims.map(claim => async () => {
  const until = now().getTime() + STRETCH_MS
  let more = true
  while (more && now().getTime() < until) more = await nextStretch(String(claim.payload.bulkId), Number(claim.payload.turn), now, until)
  return settle(claim, now(), async () => more ? { dueAt: now() } : 'done')
})

/** @returns whether there may be more */
async function nextStretch(id: string, turn: number, now: () => Date, until: number): Promise<boolean> {
  const { bulk, ids } = await peopleFrom(id, turn)
  if (!bulk) return false
  if (bulk.checked === 0) await putAllAway(id, now)
  const asker = await colleagueAtWork(bulk.madeBy)
  if (!asker) return giveUp(bulk)
  const judge = await makeJudge(asker, bulk)
  let done = 0
  do {
    const begun = performance.now()
    const piece = ids.slice(done, done + PIECE)
    const judged = await judge(piece, now())
    crashPoint('bulk-checked')
    const isLast = done + piece.length === ids.length && ids.length < STRETCH
    const goesOn = await keep(bulk, judged, { from: bulk.checked + done, to: bulk.checked + done + piece.length, isLast }, now())
    if (!goesOn || isLast) return false
    done += piece.length
    await giveWay(begun)
  } while (done < ids.length && now().getTime() < until)
  return true
}

interface Place { from: number, to: number, isLast: boolean }

/** @returns whether it goes on: written anew meanwhile, what was found is about another wording */
async function keep(bulk: StoredBulk, judged: Judged[], { from, to, isLast }: Place, now: Date): Promise<boolean> {
  return tx(async (database) => {
    const locked = await lockBulk(bulk.id)
    if (!locked || locked.turn !== bulk.turn || locked.state !== 'checking') return false
    await storeJudged(bulk, judged.map((one, i) => ({ ...one, position: from + i })), now)
    await database.update(bulkText)
      .set({ checked: to, ...(isLast && { state: 'checked' as const, brought: await readBrought(bulk, now) }) })
      .where(eq(bulkText.id, bulk.id))
    announceBulk(bulk)
    return true
  })
}

/** Whoever made it is not at work here any more: nobody is checked in their name. */
async function giveUp(bulk: StoredBulk): Promise<false> {
  await tx(database => database.update(bulkText).set({ state: 'draft' }).where(and(eq(bulkText.id, bulk.id), eq(bulkText.turn, bulk.turn))))
  announceBulk(bulk)
  return false
}

/** Who comes next. The list of all is one value, and reading of it takes as long for a hundred as for thousands. */
async function peopleFrom(id: string, turn: number): Promise<{ bulk: StoredBulk | null, ids: string[] }> {
  return tx(async (database) => {
    const bulk = await lockBulk(id)
    if (!bulk || bulk.turn !== turn || bulk.state !== 'checking') return { bulk: null, ids: [] }
    const [{ ids } = { ids: [] }] = await database
      .select({ ids: sql<string[]>`${bulkText.recordIds}[${bulk.checked + 1}::int : ${bulk.checked + STRETCH}::int]::text[]` })
      .from(bulkText).where(eq(bulkText.id, id))
    return { bulk, ids }
  })
}

/** What an earlier check has said of them counts no more: nobody keeps a number from somebody else by it. */
async function putAllAway(id: string, now: () => Date): Promise<void> {
  for (;;) {
    const begun = performance.now()
    if (await putAway(id, now()) < PIECE_PUT_AWAY) return
    await giveWay(begun)
  }
}

async function putAway(id: string, now: Date): Promise<number> {
  const rows = await tx(database => database.update(bulkPerson)
    .set({ standing: 'chosen', reason: null, changedAt: now })
    .where(and(eq(bulkPerson.bulkId, id), sql`${bulkPerson.id} = any(array(
      select p.id from ${bulkPerson} p where p.bulk_id = ${id}::uuid and p.standing in ('ready', 'left-out', 'held-out') limit ${sql.raw(String(PIECE_PUT_AWAY))}))`))
    .returning({ id: bulkPerson.id }))
  return rows.length
}
