import { and, eq, sql } from 'drizzle-orm'
import type { Wished } from '~~/core/hours/wish'
import { mayGo } from '~~/core/plan/pace'
import { dueBy, nextAfter } from '~~/core/plan/run'
import { ask, tx } from '../db/door'
import { bulkGroup, bulkPerson, bulkText, conversation, line, phone, record } from '../db/schema'
import { Problem } from '../http/problem'
import { note } from '../identity/audit'
import { giveWay } from '../http/quiet'
import { colleagueAtWork, type SignedIn } from '../identity/sign-in'
import { crashPoint } from '../jobs/crash-points'
import { settle, type Handler } from '../jobs/outbox'
import { placesOf, zonesOf, type Place } from '../records/phones'
import { copyPictures } from '../texting/pictures'
import { seeFrom } from '../texting/seen'
import { sendText } from '../texting/send'
import { queueForTurn } from './claim'
import { showOnCompanies } from './company'
import { announceBulk, BULK_COLUMNS, lockBulk, type StoredBulk } from './one'
import { seeToAnswers } from './pace'
import { goOn, mayStillWait } from './run'
import type { StoredGroup } from './plan'

/** Between two looks at whose turn it is lies at least so much. */
const SHORTEST_MS = 250
/** All have had their turn, and something still waits for its carrier. */
const WAITS_MS = 1_000
/** Whoever looks so late makes a new plan: what was to go meanwhile does not go all at once. */
const LATE_MS = 120_000

/**
 * Sends a bulk text, each person's when their turn has come: an ordinary text by the ordinary way out, whose id is that of
 * the person's place in it, so that whatever happens in between nobody gets two.
 */
export const sendBulks: Handler = async (claims, now) => claims.map(claim => async () => {
  const next = await look(String(claim.payload.bulkId), Number(claim.payload.turn), now)
  return settle(claim, now(), async () => next ? { dueAt: next } : 'done')
})

/** @returns when to look again; null if it has ended, or goes on by another turn */
async function look(id: string, turn: number, now: () => Date): Promise<Date | null> {
  const bulk = await read(id)
  if (!bulk || bulk.state !== 'running' || bulk.turn !== turn) return null
  const asker = await colleagueAtWork(bulk.madeBy)
  if (!asker) return pauseByItself(bulk, 'Whoever made it is not here any more.', now())
  const begun = now().getTime()
  const groups = await groupsOf(id)
  if (groups.some(group => group.begun < group.people)) {
    const pace = await seeToAnswers(bulk, now())
    if (pace instanceof Date) return pace
    if (pace === 'goes-on') return planAnew(bulk, asker, now())
  }
  if (isLate(bulk, begun)) return planAnew(bulk, asker, now())

  const due = dueBy(bulk.runs ?? [], begun)
  const paced = { ...bulk.paced }
  let away = false
  for (const lineId of new Set(groups.map(group => group.lineId))) {
    const waiting = groups.filter(group => group.lineId === lineId && (due.get(group.name) ?? 0) > group.begun)
    const everyMs = bulk.runs!.find(run => run.lineId === lineId)?.everyMs
    if (waiting.length === 0 || !everyMs) continue
    const wanted = waiting.reduce((sum, group) => sum + due.get(group.name)! - group.begun, 0)
    const { count, last } = mayGo(paced[lineId] ?? null, everyMs, wanted, begun)
    if (last !== null) paced[lineId] = last
    const outcome = await sendTo(bulk, asker, await nextOf(bulk, waiting, due, count), now)
    if (outcome.stop) return pauseByItself(bulk, outcome.stop, now())
    away ||= outcome.away
  }
  // somebody's hours are others than they were: whose turn is when has changed
  if (away) return planAnew(bulk, asker, now())
  const next = nextAfter(bulk.runs ?? [], begun)
  const behind = (await groupsOf(id)).some(group => (due.get(group.name) ?? 0) > group.begun)
  // as long as something waits for its carrier, it can still be stopped
  const waits = next === null && !behind && await mayStillWait(id, now())
  if (next === null && !behind && !waits) return end(bulk, now())
  await tx(database => database.update(bulkText).set({ lookedAt: now(), paced }).where(and(eq(bulkText.id, id), eq(bulkText.turn, turn))))
  const shortest = now().getTime() + SHORTEST_MS
  return new Date(waits ? begun + WAITS_MS : behind ? shortest : Math.max(shortest, next!))
}

async function read(id: string): Promise<StoredBulk | undefined> {
  const [found] = await tx(database => database.select(BULK_COLUMNS).from(bulkText).where(eq(bulkText.id, id)))
  return found
}

/** Nobody has looked for a while, and somebody's turn has come and gone meanwhile. */
function isLate({ lookedAt, runs }: StoredBulk, now: number): boolean {
  const since = lookedAt?.getTime() ?? runs?.[0]?.from
  const missed = since === undefined ? null : nextAfter(runs ?? [], since)
  return missed !== null && now - missed > LATE_MS
}

/** Plans those who are still to come from now on; the work goes on by the turn that begins with it. */
async function planAnew(bulk: StoredBulk, asker: SignedIn, now: Date): Promise<null> {
  await tx(async () => {
    const locked = await lockBulk(bulk.id)
    if (locked?.state === 'running' && locked.turn === bulk.turn) await goOn(locked, asker.zone, now)
  })
  return null
}

type Group = StoredGroup & { begun: number }

const groupsOf = (id: string): Promise<Group[]> => tx(database => database.select().from(bulkGroup).where(eq(bulkGroup.bulkId, id)))

interface Next {
  id: string
  recordId: string
  phoneId: string | null
  lineId: string
  e164: string
  words: string
  ref: string | null
  group: Group
  /** Their number is another one than was checked. */
  changed: boolean
  /** They were to be answered, and nothing waits any more. */
  answered: boolean
}

/** Whose turn it is on a line: of each group as many as are due, together no more than may go. */
async function nextOf(bulk: StoredBulk, groups: Group[], due: Map<string, number>, count: number): Promise<Next[]> {
  const next: Next[] = []
  for (const group of groups) {
    const wanted = Math.min(count - next.length, due.get(group.name)! - group.begun)
    if (wanted <= 0) continue
    const { rows } = await ask<Omit<Next, 'group'> & Record<string, unknown>>(sql`
      select b.id, b.record_id as "recordId", b.phone_id as "phoneId", b.line_id as "lineId", b.e164, b.words, b.ref,
        not exists (select 1 from ${phone} p where p.id = b.phone_id and p.e164 = b.e164) as changed,
        ${bulk.answersId !== null} and not exists (select 1 from ${conversation} v where v.line_id = b.line_id and v.remote = b.e164
          and v.waits_since is not null) as answered
      from ${bulkPerson} b where bulk_id = ${bulk.id}::uuid and standing = 'ready' and line_id = ${group.lineId}::uuid and zones = ${group.zones} and places = ${group.places}
        and wish_from is not distinct from ${group.wishFrom}::int and wish_to is not distinct from ${group.wishTo}::int
      order by position limit ${wanted}`)
    next.push(...rows.map(row => ({ ...row, group })))
    // whoever was taken out meanwhile has had their turn too
    if (rows.length < wanted) await hadTurn(bulk.id, group, wanted - rows.length)
  }
  return next
}

const hadTurn = (id: string, { name }: Group, people: number) => tx(database => database.update(bulkGroup)
  .set({ begun: sql`${bulkGroup.begun} + ${people}` })
  .where(and(eq(bulkGroup.bulkId, id), eq(bulkGroup.name, name))))

interface Sent {
  /** The hours of one of them were others than planned. */
  away: boolean
  /** Why nobody can be texted at the moment. */
  stop: string | null
}

/** So many are sent beside each other, so that their carrier gets them together, and written down as having had their turn. */
const TOGETHER = 4

async function sendTo(bulk: StoredBulk, asker: SignedIn, people: Next[], now: () => Date): Promise<Sent> {
  const sent: Sent = { away: false, stop: null }
  for (let from = 0; from < people.length && !sent.stop; from += TOGETHER) {
    const begun = performance.now()
    const some = people.slice(from, from + TOGETHER)
    const outcomes = await Promise.all(some.map(person => sendOrRefuse(bulk, asker, person, now())))
    await hadTheirTurn(bulk, some.filter((_, i) => outcomes[i] === 'sent' || outcomes[i] === 'refused'), now())
    sent.away ||= outcomes.includes('away')
    sent.stop = outcomes.find(outcome => typeof outcome === 'object')?.stop ?? null
    await giveWay(begun)
  }
  if (people.length > 0) announceBulk(bulk)
  return sent
}

/** What has become of somebody's turn; `stop`: why nobody can be texted at the moment. */
type Outcome = 'sent' | 'refused' | 'away' | 'not-now' | { stop: string }

/** What stands in the way of every text, and not of this one alone. */
const STOPS = ['texting-off', 'terms-unread', 'not-allowed', 'no-balance', 'over-limit']

async function sendOrRefuse(bulk: StoredBulk, asker: SignedIn, person: Next, now: Date): Promise<Outcome> {
  try {
    if (person.changed) return await refuse(person, 'Their number is another one since it was checked.', now)
    if (person.answered) return await refuse(person, 'They have been answered meanwhile.', now)
    return await sendOne(bulk, asker, person, now)
  }
  catch (error) {
    if (!(error instanceof Problem)) throw error
    const { type, fields, detail } = error.details
    if (type === 'not-claimed') return 'not-now'
    // about all, and not about this one
    if (STOPS.includes(type) || !await isActive(person.lineId)) return { stop: fields?.lineId ?? detail }
    if (type === 'night') return await placeAnew(person, now) ? 'away' : 'refused'
    return refuse(person, Object.values(fields ?? {})[0] ?? detail, now)
  }
  finally {
    crashPoint('bulk-sent')
  }
}

/** A crash before this loses nothing: who is marked gets no other text, and whose turn is counted too late is not there any more then. */
async function hadTheirTurn(bulk: StoredBulk, people: Next[], now: Date): Promise<void> {
  const groups = new Set(people.map(({ group }) => group))
  for (const group of groups) await hadTurn(bulk.id, group, people.filter(person => person.group === group).length)
  // an answer is on the company as any answer is
  if (!bulk.answersId && people.length > 0) await showOnCompanies(bulk, people.map(({ recordId }) => recordId), now)
}

async function isActive(lineId: string): Promise<boolean> {
  const [found] = await tx(database => database.select({ active: line.active }).from(line).where(eq(line.id, lineId)))
  return found?.active ?? false
}

async function pauseByItself(bulk: StoredBulk, why: string, now: Date): Promise<null> {
  await tx(async (database) => {
    const locked = await lockBulk(bulk.id)
    if (locked?.state !== 'running' || locked.turn !== bulk.turn) return
    await database.update(bulkText).set({ state: 'paused', turn: bulk.turn + 1, why }).where(eq(bulkText.id, bulk.id))
    await note('bulk-pause', null, now, { bulkId: bulk.id, name: bulk.name, why })
    announceBulk(bulk)
  })
  return null
}

async function sendOne(bulk: StoredBulk, asker: SignedIn, person: Next, now: Date): Promise<'sent'> {
  const { id, phoneId, lineId, words, ref } = person
  await sendText(asker, {
    id,
    lineId,
    phoneId,
    conversationId: null,
    recordId: null,
    text: words,
    templateId: bulk.templateId,
    templateVersion: bulk.templateVersion,
    nightAllowed: false,
    anyway: [],
    // what a colleague has answered since it was begun comes first
    seenUntil: bulk.answersId ? bulk.madeAt.getTime() : null,
    later: null,
    ref,
    pictureIds: await copyPictures(asker, bulk.pictureIds, now),
  }, now, bulk.answersId ? 'bulk-answer' : 'bulk', queueForTurn({ bulkId: bulk.id, turn: bulk.turn }))
  // whoever answers has seen what they wrote
  if (bulk.answersId) await seeFrom(asker, { lineId, remote: person.e164 }, bulk.madeAt)
  return 'sent'
}

/** The rules have said no at the last moment: the reason stands beside the person, and the text can be sent by hand. */
async function refuse({ id }: Next, why: string, now: Date): Promise<'refused'> {
  await tx(database => database.update(bulkPerson)
    .set({ standing: 'refused', detail: why, changedAt: now })
    .where(and(eq(bulkPerson.id, id), eq(bulkPerson.standing, 'ready'))))
  return 'refused'
}

/** Their hours are others than when they were checked: they have moved, or have said when they want to be reached. */
async function placeAnew(person: Next, now: Date): Promise<boolean> {
  const { rows: [found] } = await ask<Wished & Place & { e164: string } & Record<string, unknown>>(sql`
    select b.e164, r.zone, r.country, r.region, r.wish_from as "wishFrom", r.wish_to as "wishTo"
    from ${bulkPerson} b join ${record} r on r.id = b.record_id where b.id = ${person.id}::uuid`)
  const zones = found ? zonesOf(found, found.e164).join(' ') : ''
  const places = found ? placesOf(found, found.e164).join(' ') : ''
  if (!found || zones === '') {
    await refuse(person, 'Nobody knows what time it is there.', now)
    return false
  }
  await tx(database => database.update(bulkPerson)
    .set({ zones, places, wishFrom: found.wishFrom, wishTo: found.wishTo, changedAt: now })
    .where(eq(bulkPerson.id, person.id)))
  return true
}

/** Everybody has had their turn. Who is still ready could not be reached before the event, or has come to want hours that no day has. */
async function end(bulk: StoredBulk, now: Date): Promise<null> {
  await tx(async (database) => {
    const locked = await lockBulk(bulk.id)
    if (locked?.state !== 'running' || locked.turn !== bulk.turn) return
    await database.update(bulkPerson).set({ standing: 'left-out', reason: bulk.eventAt ? 'after-event' : 'never-in-hours', changedAt: now })
      .where(and(eq(bulkPerson.bulkId, bulk.id), eq(bulkPerson.standing, 'ready')))
    await database.update(bulkText).set({ state: 'done', endedAt: now }).where(eq(bulkText.id, bulk.id))
    // whatever a crash has left uncounted
    if (!bulk.answersId) await showOnCompanies(bulk, null, now)
    await note('bulk-done', bulk.madeBy, now, { bulkId: bulk.id, name: bulk.name })
    announceBulk(bulk)
  })
  return null
}
