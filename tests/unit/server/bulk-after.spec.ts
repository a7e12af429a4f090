import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { startCheck } from '~~/server/bulk/check'
import { addToBulk, makeBulk, writeBulk } from '~~/server/bulk/make'
import { noteAnswered } from '~~/server/bulk/note-answered'
import { readBulk, readBulkPeople } from '~~/server/bulk/read'
import { repeatBulk } from '~~/server/bulk/repeat'
import { readResults } from '~~/server/bulk/results'
import { startBulk } from '~~/server/bulk/run'
import { putBulkInGroup } from '~~/server/bulk/to-group'
import { tx } from '~~/server/db/door'
import { activity, bulkText, call, carrierPrice, disposition, phone, picture, roundPerson } from '~~/server/db/schema'
import { makeRound } from '~~/server/calling/rounds/make'
import { saveGroup } from '~~/server/records/groups/edit'
import { putInGroup } from '~~/server/records/groups/members'
import { listGroupPeople } from '~~/server/records/groups/people'
import { takeEvent } from '~~/server/texting/events'
import { dropPicture, readPicture, takePicture } from '~~/server/texting/pictures'
import { readTimeline } from '~~/server/timeline/read'
import { addToBulkForm, bulkPeopleQuery, bulkToGroupForm, makeBulkForm, startBulkForm, writeBulkForm } from '~~/shared/schemas/bulk-text'
import { groupForm } from '~~/shared/schemas/group'
import { roundForm } from '~~/shared/schemas/round'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'
import { noise } from '../../support/noise'

useDatabase()
let firm: Firm
let carrier: ReturnType<typeof fakeCarrier>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => carrier = fakeCarrier())

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const list = { module: 'lead', sort: 'name', direction: 'up' }
type Lead = Awaited<ReturnType<typeof makeLead>>
const chosen = (leads: Lead[]) => ({ selection: { list, ids: leads.map(({ recordId }) => recordId) } })
/** Each case has a clock of its own, days after the others'. */
let days = 0
let now = DAY
beforeEach(() => now = later(DAY, 20 * ++days * 86_400_000))

async function make(whom: object, who = firm.ada): Promise<string> {
  const id = uuid()
  await makeBulk(who, makeBulkForm.validateSync({ id, name: 'Winter tyres', ...whom }), now)
  return id
}
async function send(id: string): Promise<void> {
  await writeBulk(firm.ada, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: 'Time for winter tyres. Ada', lineId: firm.portland.id }), now)
  await startCheck(firm.ada, id, now)
  await drain(now)
  await startBulk(firm.ada, id, startBulkForm.cast({}), now)
  for (let i = 0; i < 14; i++) await drain(now = later(now, 1_000))
}
async function says(from: string, text = 'Yes please'): Promise<void> {
  now = later(now, 60_000)
  await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, now)
  await drain(now = later(now, 5_000))
}
const shown = async (id: string, values: object) =>
  (await readBulkPeople(firm.ada, id, bulkPeopleQuery.cast(values))).rows.map(({ recordId }) => recordId)
const peopleOf = async (id: string) => {
  const [found] = await tx(database => database.select({ ids: bulkText.recordIds }).from(bulkText).where(eq(bulkText.id, id)))
  return found!.ids
}
const ids = (...leads: Lead[]) => leads.map(({ recordId }) => recordId)
const groupOf = async (...leads: Lead[]) => {
  const id = uuid()
  await saveGroup(firm.ada, groupForm.validateSync({ id, name: `Group ${id}` }), now)
  for (const { recordId } of leads) await putInGroup(firm.ada, recordId, id, true, now)
  return id
}

describe('an answer to a bulk text', () => {
  it('is counted once a person, with whoever has answered and who has not', async () => {
    const [one, two, three] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    await says(three.e164, 'Long before it')
    const id = await make(chosen([one, two, three]))
    await send(id)
    expect(await readBulk(firm.ada, id)).toMatchObject({ counts: { texted: 3 }, answered: 0 })
    await says(one.e164)
    await says(one.e164, 'And when?')
    expect((await readBulk(firm.ada, id)).answered).toBe(1)
    expect([await shown(id, { answered: 'yes' }), (await shown(id, { answered: 'no' })).sort()]).toEqual([ids(one), ids(two, three).sort()])
    // a STOP is an order and no answer, and what comes weeks later is about something else
    await says(two.e164, 'STOP')
    now = later(now, 15 * 86_400_000)
    await says(three.e164)
    expect((await readBulk(firm.ada, id)).answered).toBe(1)
  })

  it('belongs to each bulk text that went to them within the days that count', async () => {
    const lead = await makeLead(firm.ada)
    const first = await make(chosen([lead]))
    await send(first)
    now = later(now, 86_400_000)
    const second = await make(chosen([lead]))
    await send(second)
    await says(lead.e164)
    expect([(await readBulk(firm.ada, first)).answered, (await readBulk(firm.ada, second)).answered]).toEqual([1, 1])
  })
})

describe('the people of a bulk text', () => {
  it('get another one: those who have not answered, those left out, or all, as far as one may see them', async () => {
    const [one, two, none] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    await tx(database => database.delete(phone).where(eq(phone.id, none.phoneId)))
    const id = await make(chosen([one, two, none]))
    await send(id)
    await says(one.e164)
    const again = (values: object) => make({ ofBulk: { bulkId: id, ...values } })
    expect(await peopleOf(await again({ answered: 'no' }))).toEqual(ids(two))
    expect(await peopleOf(await again({ reason: 'no-number' }))).toEqual(ids(none))
    const all = await again({})
    expect((await peopleOf(all)).sort()).toEqual(ids(one, two, none).sort())
    // whoever comes again by it counts once
    expect(await addToBulk(firm.ada, all, addToBulkForm.validateSync({ ofBulk: { bulkId: id, answered: 'yes' } }), now)).toEqual({ added: 0, again: 1, people: 3 })
    await expect(again({ standing: 'refused' })).rejects.toMatchObject(problem(422))
    await expect(make({ ofBulk: { bulkId: id } }, firm.noor)).rejects.toMatchObject(problem(404))
  })

  it('become a group, those who are not in it yet', async () => {
    const [one, two, other] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await make(chosen([one, two]))
    await send(id)
    await says(one.e164)
    const group = await groupOf(other)
    const put = (values: object, groupId = group) =>
      putBulkInGroup(firm.ada, id, bulkToGroupForm.validateSync({ id: uuid(), groupId, ...values }), now)
    expect(await put({ answered: 'no' })).toMatchObject({ state: 'running', total: 1 })
    await drain(now)
    expect((await listGroupPeople(firm.ada, group, { words: '', page: 1 }, now)).rows.map(row => row.id).sort()).toEqual(ids(two, other).sort())
    expect(await put({})).toMatchObject({ total: 1 })
    await drain(now)
    const rule = uuid()
    const where = JSON.stringify({ match: 'all', of: [{ field: 'city', test: 'filled' }] })
    await saveGroup(firm.ada, groupForm.validateSync({ id: rule, name: 'Placed', module: 'lead', where }), now)
    await expect(put({}, rule)).rejects.toMatchObject(problem(422, { fields: { groupId: expect.stringContaining('by its rule') } }))
  })
})

describe('a bulk text to those of a call round', () => {
  it('is for those who were reached, or for those who were not though it was their turn', async () => {
    const leads = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const roundId = uuid()
    await makeRound(firm.ada, roundForm.validateSync({ id: roundId, name: 'Offers', ...chosen(leads), teamId: firm.ada.teamIds[0] }), now)
    const went: Record<string, string> = {}
    await tx(async (database) => {
      for (const family of ['reached', 'not-reached'] as const) {
        went[family] = uuid()
        await database.insert(disposition).values({ id: went[family], module: 'lead', name: family, family, letter: family[0]!, position: family === 'reached' ? 90 : 91 })
      }
      const outcome = async ({ recordId, e164 }: Lead, state: 'called' | 'skipped', family: string | null) => {
        const callId = family ? uuid() : null
        if (callId) {
          const activityId = uuid()
          await database.insert(activity).values({ id: activityId, at: now, kind: 'call-out', colleagueId: firm.ada.id })
          await database.insert(call).values({
            id: callId, activityId, direction: 'out', lineId: firm.portland.id, remote: e164, recordId, colleagueId: firm.ada.id, exchange: 'practice', exchangeRef: callId,
            madeAt: now, endedAt: now, endWhy: 'hung-up', endSide: 'us', dispositionId: went[family!],
          })
        }
        await database.update(roundPerson).set({ state, callId }).where(eq(roundPerson.recordId, recordId))
      }
      await outcome(leads[0]!, 'called', 'reached')
      await outcome(leads[1]!, 'called', 'not-reached')
      await outcome(leads[2]!, 'skipped', null)
    })
    const whom = async (reached: boolean) => (await peopleOf(await make({ ofRound: { roundId, reached } }))).sort()
    expect([await whom(true), await whom(false)]).toEqual([ids(leads[0]!), ids(leads[1]!, leads[2]!).sort()])
    await expect(make({ ofRound: { roundId, reached: true } }, firm.noor)).rejects.toMatchObject(problem(404))
  })
})

describe('pictures of a bulk text', () => {
  const put = async (who = firm.ada) => (await takePicture(who, uuid(), await noise(40, 30).png().toBuffer(), now)).id
  const written = (id: string, values: object, who = firm.ada) =>
    writeBulk(who, id, writeBulkForm.validateSync({ name: 'Winter tyres', body: 'Look!', lineId: firm.portland.id, ...values }), now)

  it('go with each text as one message, are kept once, and stay as long as somebody has them', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const pictureIds = [await put(), await put()]
    const id = await make(chosen([one, two]))
    await written(id, { body: `Look! ${'a'.repeat(400)}`, pictureIds })
    await startCheck(firm.ada, id, now)
    await drain(now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ pictureIds, parts: { 1: 2 }, counts: { ready: 2 } })
    // whoever takes it out of the one that is being written does not take it from the bulk text
    await dropPicture(firm.ada, pictureIds[0]!)
    await startBulk(firm.ada, id, startBulkForm.cast({}), now)
    for (let i = 0; i < 5; i++) await drain(now = later(now, 1_000))
    expect(carrier.asked.map(({ to, pictures }) => [to, pictures.length]).sort()).toEqual([[one.e164, 2], [two.e164, 2]].sort())
    const [first, second] = carrier.asked.map(({ pictures }) => pictures.map(({ bytes }) => bytes.length))
    expect(first).toEqual(second)
    const kept = await tx(database => database.select({ bytes: picture.bytes }).from(picture))
    expect(kept.filter(({ bytes }) => bytes !== null).length).toBe(2)
    const [entry] = (await readTimeline(firm.mika, one.recordId)).entries
    const shown = entry!.message!.pictures[0]!.id
    expect(pictureIds).not.toContain(shown)
    expect((await readPicture(firm.mika, shown)).bytes.length).toBeGreaterThan(100)
    // her lead sees what is in it, somebody else does not
    expect((await readPicture(firm.odile, pictureIds[0]!)).type).toBe('image/png')
    await expect(readPicture(firm.mika, pictureIds[0]!)).rejects.toMatchObject(problem(404))
    const next = uuid()
    await repeatBulk(firm.ada, id, next, now)
    expect(await readBulk(firm.ada, next)).toMatchObject({ pictureIds })
  })

  it('are one’s own, and leave out whoever is texted over a line that takes none', async () => {
    const one = await makeLead(firm.ada)
    const id = await make(chosen([one]))
    const hers = { pictureIds: [await put(firm.mika)] }
    await expect(written(id, hers)).rejects.toMatchObject(problem(422, { fields: { pictureIds: expect.any(String) } }))
    const many = [await put(), await put(), await put(), await put()]
    await tx(database => database.update(carrierPrice).set({ mostPictures: 3 }))
    await written(id, { pictureIds: many.slice(0, 3) })
    await startCheck(firm.ada, id, now)
    await drain(now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ counts: { ready: 1 } })
    await tx(database => database.update(carrierPrice).set({ microsPerPicture: null }))
    await startCheck(firm.ada, id, now)
    await drain(now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ leftOut: [{ reason: 'no-pictures', people: 1 }] })
  })
})

describe('a bulk text that is repeated', () => {
  it('goes to those who are in its group by now, says who came and who went, and is written already', async () => {
    const [one, two, three] = [await makeLead(firm.ada), await makeLead(firm.ada), await makeLead(firm.ada)]
    const groupId = await groupOf(one, two)
    const id = await make({ groupId })
    await send(id)
    await putInGroup(firm.ada, one.recordId, groupId, false, now)
    await putInGroup(firm.ada, three.recordId, groupId, true, now)
    now = later(now, 30 * 86_400_000)
    const next = uuid()
    expect([await repeatBulk(firm.ada, id, next, now), await repeatBulk(firm.ada, id, next, now)]).toEqual([{ id: next }, { id: next }])
    expect((await peopleOf(next)).sort()).toEqual(ids(two, three).sort())
    expect(await readBulk(firm.ada, next)).toMatchObject({
      state: 'draft', name: 'Winter tyres', body: 'Time for winter tyres. Ada', lineId: firm.portland.id, repeats: { came: 1, gone: 1 }, eventAt: null,
    })
    await expect(repeatBulk(firm.noor, id, uuid(), now)).rejects.toMatchObject(problem(404))
    // whoever knows the id of somebody else's draft does not write into it by that
    const hers = await make(chosen([await makeLead(firm.mika)]), firm.mika)
    await repeatBulk(firm.ada, id, hers, now)
    expect((await readBulk(firm.mika, hers)).body).toBe('')
    await send(next)
    expect(carrier.asked.map(({ to }) => to).sort()).toEqual([one, two, two, three].map(({ e164 }) => e164).sort())
  })

  it('is refused where nobody knows any more to whom it went', async () => {
    const id = await make(chosen([await makeLead(firm.ada)]))
    await tx(database => database.update(bulkText).set({ whom: null }).where(eq(bulkText.id, id)))
    await expect(repeatBulk(firm.ada, id, uuid(), now)).rejects.toMatchObject(problem(409, { type: 'unknown-whom' }))
    expect((await readBulk(firm.ada, id)).mayRepeat).toBe(false)
  })
})

describe('whoever answers in another way', () => {
  it('counts as answered once somebody has said so, is not asked again, and not with how fast answers came', async () => {
    const [one, two] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const id = await make(chosen([one, two]))
    await send(id)
    await noteAnswered(firm.ada, id, one.recordId, true, now)
    await noteAnswered(firm.ada, id, one.recordId, true, later(now, 5))
    expect(await readBulk(firm.ada, id)).toMatchObject({ answered: 1 })
    expect(await readResults(firm.ada, id)).toMatchObject({ answered: { hits: 1, of: 2 }, medianMs: null })
    expect(await peopleOf(await make({ ofBulk: { bulkId: id, answered: 'no' } }))).toEqual(ids(two))
    await noteAnswered(firm.ada, id, one.recordId, false, now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ answered: 0 })
    await expect(noteAnswered(firm.ada, id, (await makeLead(firm.ada)).recordId, true, now)).rejects.toMatchObject(problem(404))
    await expect(noteAnswered(firm.mika, id, two.recordId, true, now)).rejects.toMatchObject(problem(404))
  })

  it('by text has answered, whatever somebody says afterwards', async () => {
    const one = await makeLead(firm.ada)
    const id = await make(chosen([one]))
    await send(id)
    await takeEvent('practice', { id: uuid(), at: now, kind: 'received', ref: uuid(), from: one.e164, to: firm.portland.e164, text: 'Yes' }, now)
    await drain(now)
    await noteAnswered(firm.ada, id, one.recordId, false, now)
    expect(await readBulk(firm.ada, id)).toMatchObject({ answered: 1 })
  })
})
