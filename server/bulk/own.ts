import { sql } from 'drizzle-orm'
import { takesTexts } from '~~/core/bulk/fate'
import { showPhone } from '~~/core/phone/show'
import { GAP } from '~~/core/template/fill'
import type { BulkOne } from '~~/shared/bulk-texts'
import type { OwnTextForm } from '~~/shared/schemas/bulk-text'
import { ask, tx } from '../db/door'
import { at } from '../db/instants'
import { bulkPerson, record } from '../db/schema'
import { badInput, conflict, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { seesRecord } from '../reading/visible'
import { linesOf } from '../texting/lines'
import { factsOf, type KnownNumber } from './facts'
import { makeJudge } from './judge'
import { storeJudged } from './judged'
import { announceBulk, mustHoldBulk, mustSeeBulk, type StoredBulk } from './one'

type Found = Record<string, unknown> & Omit<BulkOne, 'recordId' | 'numbers' | 'languages'> & { lineId: string | null }

/** Somebody in it, with what they would get and every number that they could get it on. */
export async function readOne(asker: SignedIn, id: string, recordId: string, now: Date): Promise<BulkOne> {
  const bulk = await mustSeeBulk(asker, id)
  const { rows: [found] } = await ask<Found>(sql`
    select r.name, p.words, p.phone_id as "phoneId", p.own_words is not null as "ownWords",
      p.own_phone_id is not null as "ownPhone", p.line_id as "lineId"
    from ${bulkPerson} p join ${record} r on r.id = p.record_id and ${seesRecord(asker, 'r')}
    where p.bulk_id = ${id}::uuid and p.record_id = ${recordId}::uuid`)
  if (!found) throw notFound('person in this bulk text')
  const { lineId, ...one } = found
  const lines = await linesOf(asker)
  return {
    ...one,
    recordId,
    numbers: (await numbersOf(asker, bulk, recordId, now)).map(number => ({
      phoneId: number.phoneId,
      label: number.label,
      number: number.e164 === null ? number.typed : showPhone(number.e164),
      takesTexts: takesTexts(number),
    })),
    languages: lines.find(line => line.id === lineId)?.languages ?? [],
  }
}

async function numbersOf(asker: SignedIn, { body }: StoredBulk, recordId: string, now: Date): Promise<KnownNumber[]> {
  const facts = await factsOf(asker, [recordId], { body, lineIds: [], since: now })
  return facts.get(recordId)?.numbers ?? []
}

/**
 * Gives somebody a text or a number of their own, or what all the others have, and looks at them again; and at who was left
 * out because they had the number first.
 *
 * @throws Problem 422 at the field; 409 where it is not checked, or somebody else has the number
 */
export async function writeOwn(asker: SignedIn, id: string, recordId: string, form: OwnTextForm, now: Date): Promise<void> {
  if (form.words?.includes(GAP)) throw badInput({ words: `Write what belongs into the gap (${GAP}), or leave it out.` })
  await tx(async () => {
    const bulk = await mustHoldBulk(asker, id)
    if (bulk.state !== 'checked') throw conflict('not-now', 'Not now', 'It can be changed once all are checked, and before it is started.')
    const numbers = form.phoneId === null ? [] : await numbersOf(asker, bulk, recordId, now)
    if (form.phoneId !== null && !numbers.some(one => one.phoneId === form.phoneId && takesTexts(one)))
      throw badInput({ phoneId: 'No text reaches this number. Choose another one.' })
    const had = await keep(bulk, recordId, form, now)
    const waiting = had?.e164 ? await firstWithNumber(bulk, had.e164, recordId) : []
    const judge = await makeJudge(asker, bulk)
    const [judged] = await judge([recordId], now)
    if (!had || !judged) throw notFound('person in this bulk text')
    await storeJudged(bulk, [{ ...judged, position: had.position }], now)
    for (const { position, ...one } of waiting)
      await storeJudged(bulk, (await judge([one.recordId], now)).map(again => ({ ...again, position })), now)
    announceBulk(bulk)
  })
}

interface Had extends Record<string, unknown> { position: number, /** On which they would have got it. */ e164: string | null }

/** They have no number any more until they are judged. @returns undefined for whoever is not in it, or was taken out */
async function keep(bulk: StoredBulk, recordId: string, { phoneId, words }: OwnTextForm, now: Date): Promise<Had | undefined> {
  const { rows: [had] } = await ask<Had>(sql`
    update ${bulkPerson} p set own_phone_id = ${phoneId}::uuid, own_words = ${words},
      own_wording = ${words === null ? null : bulk.wording}::int,
      standing = 'left-out', reason = coalesce(p.reason, 'same-number'), changed_at = ${at(now)}
    from ${bulkPerson} b
    where p.id = b.id and b.bulk_id = ${bulk.id}::uuid and b.record_id = ${recordId}::uuid and b.standing in ('ready', 'left-out')
    returning b.position, case when b.standing = 'ready' then b.e164 end as e164`)
  return had
}

interface Waiting extends Record<string, unknown> { recordId: string, position: number }

/** Who comes first of those who were left out because somebody before them had their number; nobody, or one. */
async function firstWithNumber({ id }: StoredBulk, e164: string, butNot: string): Promise<Waiting[]> {
  const { rows } = await ask<Waiting>(sql`
    select record_id as "recordId", position from ${bulkPerson}
    where bulk_id = ${id}::uuid and standing = 'left-out' and reason = 'same-number' and e164 = ${e164}
      and record_id <> ${butNot}::uuid order by position limit 1`)
  return rows
}
