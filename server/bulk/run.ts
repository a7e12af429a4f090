import { oversees } from '~~/shared/permissions'
import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterStep, type BulkTextStep } from '~~/core/bulk/states'
import { STALE_AFTER } from '~~/core/message/gate'
import type { MessageState } from '~~/core/message/states'
import type { Plan } from '~~/core/plan/plan'
import type { BulkStarted } from '~~/shared/bulk-texts'
import type { StartBulkForm } from '~~/shared/schemas/bulk-text'
import { ask, tx } from '../db/door'
import { at, textArray, uuidArray } from '../db/instants'
import { bulkPerson, bulkText, message } from '../db/schema'
import { badInput, conflict } from '../http/problem'
import { note } from '../identity/audit'
import { readHouseRules } from '../identity/house-rules'
import type { SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { endJob } from '../jobs/change'
import { SEND_BULK } from '../jobs/kinds'
import { takeBackWaiting } from '../texting/take-back-many'
import { mustCoverAll } from './covered'
import { showOnCompanies } from './company'
import { planFrom, startOf, storeGroups } from './plan'
import { announceBulk, mustHoldBulk, type StoredBulk } from './one'

/**
 * Sets it going: when each leaves is settled now, from what was checked.
 *
 * @throws Problem 409 unless it has been checked, or `no-balance`; 422 where nobody can get it, or nobody in time
 */
export async function startBulk(asker: SignedIn, id: string, asked: StartBulkForm, now: Date): Promise<BulkStarted> {
  return tx(async () => {
    const bulk = await turnTo(asker, id, 'start')
    const from = startOf(asked, now)
    const { days, answersAnHour } = asked
    const plan = await setGoing({ ...bulk, days, answersAnHour, startAt: new Date(from) }, asker.zone, from, now)
    const leaves = plan.runs.reduce((sum, { people }) => sum + people, 0)
    if (leaves === 0)
      throw badInput({ start: plan.left.some(({ why }) => why === 'after-event') ? 'Nobody would get it in time. Start earlier.' : 'Nobody is left who can get it. Put somebody back, or change what it says.' })
    // whoever is answered has asked
    if (!bulk.answersId) await mayTextSoMany(asker, leaves)
    await mustCoverAll(id)
    await note('bulk-started', asker.id, now, { bulkId: id, name: bulk.name, people: leaves, start: from, days, answersAnHour })
    return { leaves, left: plan.left.map(({ why, people }) => ({ why, people })) }
  })
}

/** Pauses it, goes on, or stops it: each in effect for all that has not been handed over. */
export async function turnBulk(asker: SignedIn, id: string, step: 'pause' | 'go-on' | 'stop', now: Date): Promise<void> {
  await tx(async (database) => {
    const bulk = await turnTo(asker, id, step)
    if (step === 'go-on') {
      await goOn(bulk, asker.zone, now)
    }
    else {
      await database.update(bulkText)
        .set({ state: afterStep(bulk.state, step)!, turn: bulk.turn + 1, ...(step === 'stop' && { endedAt: now }) })
        .where(eq(bulkText.id, id))
      await endTurn(bulk, now)
      if (step === 'stop') await standBack(bulk, now)
      announceBulk(bulk)
    }
    await note(`bulk-${step}`, asker.id, now, { bulkId: id, name: bulk.name })
  })
}

/** Plans those who are still to come anew: from now on, and never before the moment for which it was meant. */
export const goOn = (bulk: StoredBulk, zone: string, now: Date): Promise<Plan> =>
  setGoing(bulk, zone, Math.max(now.getTime(), bulk.startAt?.getTime() ?? 0), now)

const DAY = 86_400_000
/** Over how many of its days the rest is spread. */
const daysLeft = ({ days, startAt }: StoredBulk, from: number): number =>
  Math.max(1, days - Math.floor((from - (startAt?.getTime() ?? from)) / DAY))

/** @throws Problem 409 for a rep's that is larger than the house allows without a lead's word */
export async function mayTextSoMany(asker: SignedIn, people: number): Promise<void> {
  const { bulkMost } = await readHouseRules()
  if (oversees(asker) || bulkMost === null || people <= bulkMost) return
  throw conflict(
    'needs-a-lead',
    'A lead starts it',
    `You may text ${bulkMost.toLocaleString('en-US')} people at once. Ask your lead to start this one: it is there for them under Bulk, as it is.`,
  )
}

async function turnTo(asker: SignedIn, id: string, step: BulkTextStep): Promise<StoredBulk> {
  const bulk = await mustHoldBulk(asker, id)
  if (!afterStep(bulk.state, step)) throw conflict('not-now', 'Not now', `It is ${STATE_WORDS[bulk.state]}, so that cannot be done now. Reload to see how it stands.`)
  return bulk
}

const STATE_WORDS = {
  draft: 'not checked yet', checking: 'being checked', checked: 'not started yet', running: 'under way', paused: 'paused', stopped: 'stopped', done: 'done',
} as const

/** Plans all who are still ready from an instant on, in the transaction around; what was planned before counts no more. */
async function setGoing(bulk: StoredBulk, zone: string, from: number, now: Date): Promise<Plan> {
  return tx(async (database) => {
    const { groups, plan } = await planFrom(bulk, zone, { start: from, days: daysLeft(bulk, from) }, now)
    const turn = bulk.turn + 1
    await endTurn(bulk, now)
    await storeGroups(bulk, groups)
    await database.update(bulkText)
      .set({ state: 'running', turn, days: bulk.days, startAt: bulk.startAt, runs: plan.runs, startedAt: bulk.startedAt ?? now, endedAt: null, lookedAt: null, why: null, answersAnHour: bulk.answersAnHour, waitsSince: null })
      .where(eq(bulkText.id, bulk.id))
    await addJob({
      kind: SEND_BULK, key: `${bulk.id} ${turn}`, lane: bulk.id, payload: { bulkId: bulk.id, turn }, dueAt: new Date(plan.runs[0]?.from ?? now),
    })
    announceBulk(bulk)
    return plan
  })
}

/** What was to be looked at in this turn is not looked at any more: waiting for its moment, it would hold up the next turn. */
const endTurn = ({ id, turn }: StoredBulk, now: Date) => endJob(SEND_BULK, `${id} ${turn}`, now)

/** Its texts that are on their way and have not been handed over: what waits can be taken back. */
async function waitingOf(id: string, now: Date): Promise<string[]> {
  return textsIn(['waiting'], id, now)
}

/** Whether something of it is on its way yet: what is just being handed over may come back, and wait again. */
export async function mayStillWait(id: string, now: Date): Promise<boolean> {
  return (await textsIn(['waiting', 'handing-over'], id, now)).length > 0
}

async function textsIn(states: MessageState[], id: string, now: Date): Promise<string[]> {
  const { rows } = await ask<{ id: string }>(sql`
    select p.id from ${bulkPerson} p join ${message} m on m.id = p.id
    where p.bulk_id = ${id}::uuid and p.standing = 'texted' and p.changed_at >= ${at(now.getTime() - STALE_AFTER)} and m.state = any(${textArray(states)})`)
  return rows.map(row => row.id)
}

/** Takes back what has not been handed over: whoever it was for stands as before, with another id for their text. */
async function standBack(bulk: StoredBulk, now: Date): Promise<void> {
  const { id } = bulk
  const back = await takeBackWaiting(await waitingOf(id, now), now)
  if (back.length === 0) return
  const people = await tx(database => database.update(bulkPerson)
    .set({ standing: 'ready', changedAt: now, id: sql`(select x.fresh from unnest(${uuidArray(back)}, ${uuidArray(back.map(() => uuid()))}) x (old, fresh) where x.old = ${bulkPerson.id})` })
    .where(and(eq(bulkPerson.bulkId, id), inArray(bulkPerson.id, back)))
    .returning({ recordId: bulkPerson.recordId }))
  if (!bulk.answersId) await showOnCompanies(bulk, people.map(({ recordId }) => recordId), now)
}
