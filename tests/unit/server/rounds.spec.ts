import { v7 as uuid } from 'uuid'
import { HOLD_MS } from '~~/core/call/round'
import { saveDisposition } from '~~/server/calling/disposition-edit'
import { previewDispositions } from '~~/server/calling/preview'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { dial } from '~~/server/calling/dial'
import { leaveRound, nextInRound } from '~~/server/calling/rounds/next'
import { makeRound, previewRound } from '~~/server/calling/rounds/make'
import { myRound } from '~~/server/calling/rounds/mine'
import { listRounds, readRound, readRoundPeople } from '~~/server/calling/rounds/read'
import { sayOf } from '~~/server/calling/rounds/standing'
import { changeRound, turnRound } from '~~/server/calling/rounds/turn'
import { writeConsent } from '~~/server/consent/ledger'
import type { SignedIn } from '~~/server/identity/sign-in'
import { dialForm } from '~~/shared/schemas/calling'
import { roundForm, roundMannerForm, roundPeopleQuery, roundSelectionForm } from '~~/shared/schemas/round'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { DAY, later, makeFirm, makeLead, makeThing, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
let exchange: ReturnType<typeof fakeExchange>
beforeAll(async () => firm = await makeFirm())
beforeEach(() => {
  exchange = fakeExchange()
  fakeCarrier()
})

const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const HOUR = 3_600_000
const list = { module: 'lead', sort: 'name', direction: 'up' }
let areas = 200
const numberIn = () => `+1808555${String(areas++).padStart(4, '0')}`

/** Leads of these last names, and a round of them that sales works. */
async function roundOf(names: string[], values: object = {}, of: (name: string) => object = () => ({})) {
  const leads = await Promise.all(
    names.map(async name => ({ name, ...(await makeLead(firm.ada, { lastName: name, ...of(name) }, numberIn())) })),
  )
  const form = roundForm.validateSync({
    id: uuid(),
    name: 'Spring trial',
    selection: { list, ids: leads.map(({ recordId }) => recordId) },
    teamId: firm.ada.teamIds[0],
    ...values,
  })
  await makeRound(firm.ada, form, DAY)
  return {
    id: form.id,
    form,
    leads: Object.fromEntries(leads.map(lead => [lead.name, lead])),
    nameOf: (recordId: string | undefined) => leads.find(lead => lead.recordId === recordId)?.name,
  }
}

const call = async (asker: SignedIn, phoneId: string, now: Date, roundId: string | null = null) => {
  const form = dialForm.validateSync({ id: uuid(), phoneId, roundId, lineId: firm.portland.id, nightAllowed: true })
  await dial(asker, form, now)
  return form.id
}
const hangUp = (callId: string, at: Date) => exchange.tell(callId, { kind: 'ended', at: at.getTime(), why: 'no-answer', side: 'them' })

describe('a round', () => {
  it('hands its people out in the order of the list, to each colleague somebody else', async () => {
    const { id, nameOf, leads } = await roundOf(['Coombs', 'Abara', 'Bello'])
    const [ada, mika] = [await nextInRound(firm.ada, id, DAY), await nextInRound(firm.mika, id, DAY)]
    expect([nameOf(ada.inHand?.recordId), nameOf(mika.inHand?.recordId)]).toEqual(['Abara', 'Bello'])
    // asking again hands out nobody else
    expect((await nextInRound(firm.ada, id, DAY)).inHand).toEqual({
      recordId: leads.Abara!.recordId,
      name: 'Iris Abara',
      firstName: 'Iris',
      phoneId: leads.Abara!.phoneId,
      number: leads.Abara!.e164,
    })
    expect(ada.counts).toEqual({ waiting: 2, held: 1, called: 0, passed: 0, skipped: 0 })
    expect((await readRound(firm.odile, id, DAY)).on.map(({ firstName }) => firstName)).toEqual(['Ada', 'Mika'])
  })

  it('takes whoever is called out of everybody’s hands, and shows how it went', async () => {
    const { id, nameOf, leads } = await roundOf(['Abara', 'Bello'])
    await nextInRound(firm.ada, id, DAY)
    const callId = await call(firm.ada, leads.Abara!.phoneId, DAY)
    expect((await myRound(firm.ada, DAY))!.inHand).toBeNull()
    await exchange.tell(callId, { kind: 'answered', at: DAY.getTime() + 1_000, by: 'person' })
    await exchange.tell(callId, { kind: 'ended', at: DAY.getTime() + 61_000, why: 'hung-up', side: 'them' })
    expect(nameOf((await nextInRound(firm.mika, id, DAY)).inHand?.recordId)).toBe('Bello')
    const after = await nextInRound(firm.ada, id, DAY)
    expect([after.inHand, after.nextAt]).toEqual([null, DAY.getTime() + HOLD_MS])
    const detail = await readRound(firm.ada, id, later(DAY, HOUR))
    expect(detail.results).toEqual([{ name: '', colour: null, count: 1 }])
    expect(detail.colleagues).toMatchObject([
      { firstName: 'Ada', here: true, called: 1, reached: 1, talkMs: 60_000 },
      { firstName: 'Mika', called: 0 },
    ])
    const people = await readRoundPeople(firm.ada, id, roundPeopleQuery.validateSync({}), DAY)
    expect(people.rows.map(({ name, state, by }) => [name, state, by])).toEqual([
      ['Iris Bello', 'held', 'Mika'],
      ['Iris Abara', 'called', 'Ada'],
    ])
    expect((await readRoundPeople(firm.ada, id, roundPeopleQuery.validateSync({ state: 'called' }), DAY)).total).toBe(1)
  })

  it('of deals and jobs is of the people on them whom I may see, each once, and of a deal’s own number', async () => {
    const [iris, other] = await Promise.all(['Holm', 'Osei'].map(lastName => makeLead(firm.ada, { lastName }, numberIn())))
    const own = { phones: [{ id: null, label: 'desk', typed: numberIn() }] }
    const deals = [
      await makeThing(firm.ada, 'deal', {}, [iris!.recordId, other!.recordId]),
      await makeThing(firm.ada, 'deal', { name: 'Three bikes', ...own }, [iris!.recordId]),
    ]
    const selection = { list: { ...list, module: 'deal' }, ids: deals }
    const form = roundForm.validateSync({ id: uuid(), name: 'Offers out', selection, teamId: firm.ada.teamIds[0] })
    expect(await previewRound(firm.ada, roundSelectionForm.validateSync({ selection }), DAY)).toMatchObject({ chosen: 3 })
    await makeRound(firm.ada, form, DAY)
    expect((await readRound(firm.ada, form.id, DAY)).module).toBe('lead')
    const { rows } = await readRoundPeople(firm.ada, form.id, roundPeopleQuery.validateSync({}), DAY)
    expect(rows.map(({ recordId }) => recordId).sort()).toEqual([iris!.recordId, other!.recordId, deals[1]].sort())
  })

  it('has dispositions of its own, asked after its calls alone', async () => {
    const { id, leads } = await roundOf(['Abara'])
    const own = dispositionForm.validateSync({
      id: uuid(), module: 'lead', name: 'Comes to the fair', family: 'reached', letter: 'f', effects: [], onlyRoundId: id,
    })
    expect((await saveDisposition(firm.odile, own, DAY)).find(one => one.id === own.id)).toMatchObject({ purpose: 'Spring trial' })
    await nextInRound(firm.ada, id, DAY)
    const inRound = await call(firm.ada, leads.Abara!.phoneId, DAY, id)
    await hangUp(inRound, later(DAY, 1_000))
    const other = await call(firm.ada, (await makeLead(firm.ada, {}, numberIn())).phoneId, later(DAY, 2_000))
    await hangUp(other, later(DAY, 3_000))
    const keys = async (callId: string) => (await previewDispositions(firm.ada, callId, later(DAY, 4_000))).map(one => one.id)
    expect([(await keys(inRound)).includes(own.id), (await keys(other)).includes(own.id)]).toEqual([true, false])
  })

  it('passes over, with the reason, whoever may not be called now', async () => {
    const { id, form, nameOf, leads } = await roundOf(['Abara', 'Bello', 'Coombs', 'Dalby', 'Eklund'], {}, name =>
      name === 'Dalby' ? { phones: [{ label: 'mobile', typed: '12' }] } : name === 'Coombs' ? { zone: 'Asia/Tokyo' } : {},
    )
    await writeConsent({
      e164: leads.Abara!.e164,
      at: DAY,
      kind: 'refused',
      covers: 'calls',
      how: 'by-hand',
      words: null,
      colleagueId: firm.ada.id,
    })
    await hangUp(await call(firm.mika, leads.Bello!.phoneId, later(DAY, -HOUR)), later(DAY, -HOUR))
    expect(await previewRound(firm.ada, roundSelectionForm.validateSync(form), DAY)).toEqual({
      chosen: 5,
      callable: 1,
      passed: { 'no-calls': 1, 'called-lately': 1, 'night': 1, 'no-number': 1 },
    })
    // said before anybody has begun: of all, and of each
    expect((await readRound(firm.ada, id, DAY)).notNow).toEqual({ 'no-calls': 1, 'called-lately': 1, 'night': 1, 'no-number': 1 })
    const before = await readRoundPeople(firm.ada, id, roundPeopleQuery.validateSync({}), DAY)
    expect(before.rows.map(row => row.reason).filter(Boolean)).toHaveLength(4)
    expect(nameOf((await nextInRound(firm.ada, id, DAY)).inHand?.recordId)).toBe('Eklund')
    const { rows } = await readRoundPeople(firm.ada, id, roundPeopleQuery.validateSync({}), DAY)
    expect(Object.fromEntries(rows.map(row => [row.name, [row.state, row.reason]]))).toEqual({
      'Iris Eklund': ['held', null],
      'Iris Abara': ['passed', 'no-calls'],
      'Iris Bello': ['waiting', 'called-lately'],
      'Iris Coombs': ['waiting', 'night'],
      'Iris Dalby': ['passed', 'no-number'],
    })
    // in Tokyo the day begins at 23:00 UTC; the other one's turn comes again a day after the call
    await sayOf(firm.ada, id, leads.Eklund!.recordId, 'skip', DAY)
    expect((await nextInRound(firm.ada, id, DAY)).nextAt).toBe(Date.parse('2026-11-25T23:00:00Z'))
    expect(nameOf((await nextInRound(firm.ada, id, new Date('2026-11-25T23:00:00Z'))).inHand?.recordId)).toBe('Coombs')
  })

  it('says at once when nobody may be called before a moment', async () => {
    const { id } = await roundOf(['Abara', 'Bello'], {}, () => ({ zone: 'Asia/Tokyo' }))
    expect(await nextInRound(firm.ada, id, DAY)).toMatchObject({
      inHand: null,
      nextAt: Date.parse('2026-11-25T23:00:00Z'),
      counts: { waiting: 2 },
    })
    const nobody = await roundOf(['Dalby'], {}, () => ({ phones: [{ label: 'mobile', typed: '12' }] }))
    expect(await nextInRound(firm.ada, nobody.id, DAY)).toMatchObject({ inHand: null, nextAt: null, counts: { waiting: 0, passed: 1 } })
  })

  it('comes back later to whom one says, skips others for good, and takes them in again when asked', async () => {
    const { id, nameOf, leads } = await roundOf(['Abara', 'Bello'])
    const next = async () => nameOf((await nextInRound(firm.ada, id, DAY)).inHand?.recordId)
    expect(await next()).toBe('Abara')
    await sayOf(firm.ada, id, leads.Abara!.recordId, 'later', DAY)
    expect(await next()).toBe('Bello')
    await sayOf(firm.ada, id, leads.Bello!.recordId, 'skip', DAY)
    expect(await next()).toBe('Abara')
    await expect(sayOf(firm.mika, id, leads.Abara!.recordId, 'skip', DAY)).rejects.toMatchObject(problem(409))
    await expect(sayOf(firm.ada, id, leads.Abara!.recordId, 'again', DAY)).rejects.toMatchObject(problem(409))
    await expect(sayOf(firm.ada, id, uuid(), 'skip', DAY)).rejects.toMatchObject(problem(404))
    await sayOf(firm.ada, id, leads.Bello!.recordId, 'again', DAY)
    await sayOf(firm.ada, id, leads.Abara!.recordId, 'skip', DAY)
    expect(await next()).toBe('Bello')
  })

  it('gives back whoever is in hand when a colleague leaves, joins another round, or is away for long', async () => {
    const [one, other] = [await roundOf(['Abara']), await roundOf(['Bello'])]
    await nextInRound(firm.ada, one.id, DAY)
    expect((await nextInRound(firm.mika, one.id, DAY)).inHand).toBeNull()
    await leaveRound(firm.ada, one.id, DAY)
    expect(await myRound(firm.ada, DAY)).toBeNull()
    expect(one.nameOf((await nextInRound(firm.mika, one.id, DAY)).inHand?.recordId)).toBe('Abara')
    await nextInRound(firm.mika, other.id, DAY)
    expect(one.nameOf((await nextInRound(firm.ada, one.id, DAY)).inHand?.recordId)).toBe('Abara')
    expect(one.nameOf((await nextInRound(firm.odile, one.id, later(DAY, HOLD_MS))).inHand?.recordId)).toBe('Abara')
    // the first one does not call for the round any more, and a call of their own is none of the round's
    await expect(call(firm.ada, one.leads.Abara!.phoneId, later(DAY, HOLD_MS), one.id)).rejects.toMatchObject(
      problem(409, { type: 'not-in-hand' }),
    )
    const callId = await call(firm.ada, one.leads.Abara!.phoneId, later(DAY, HOLD_MS))
    expect((await readRound(firm.ada, one.id, DAY)).counts).toMatchObject({ held: 1, called: 0 })
    await hangUp(callId, later(DAY, HOLD_MS))
  })

  it('dials a number once, though two of its records have it', async () => {
    const typed = numberIn()
    const both = [await makeLead(firm.ada, { lastName: 'Abara' }, typed), await makeLead(firm.ada, { lastName: 'Bello' }, typed)]
    const form = roundForm.validateSync({
      id: uuid(),
      name: 'Twins',
      selection: { list, ids: both.map(({ recordId }) => recordId) },
      teamId: firm.ada.teamIds[0],
    })
    await makeRound(firm.ada, form, DAY)
    const [first, second] = [(await nextInRound(firm.ada, form.id, DAY)).inHand!, (await nextInRound(firm.mika, form.id, DAY)).inHand!]
    const callId = await call(firm.ada, first.phoneId, DAY)
    await expect(call(firm.mika, second.phoneId, DAY)).rejects.toMatchObject(problem(409, { type: 'called-in-round' }))
    await hangUp(callId, DAY)
    expect(exchange.dialled).toHaveLength(1)
  })

  it('calls those first whose hours end soonest, or whom nobody spoke with for longest', async () => {
    const zones: Record<string, string> = { Abara: 'Pacific/Honolulu', Bello: 'America/Halifax', Coombs: 'Europe/London' }
    const byTime = await roundOf(Object.keys(zones), { order: 'local-time' }, name => ({ zone: zones[name] }))
    const order = async (id: string, nameOf: (id: string | undefined) => string | undefined) => {
      const handed: (string | undefined)[] = []
      for (const asker of [firm.ada, firm.mika, firm.odile]) handed.push(nameOf((await nextInRound(asker, id, DAY)).inHand?.recordId))
      return handed
    }
    expect(await order(byTime.id, byTime.nameOf)).toEqual(['Coombs', 'Bello', 'Abara'])
    const byContact = await roundOf(['Abara', 'Bello'])
    const before = later(DAY, -30 * HOUR)
    const callId = await call(firm.ada, byContact.leads.Abara!.phoneId, before)
    await exchange.tell(callId, { kind: 'answered', at: before.getTime(), by: 'person' })
    await hangUp(callId, before)
    const again = { ...byContact.form, id: uuid(), order: 'last-contact' as const }
    await makeRound(firm.ada, again, DAY)
    expect(await order(again.id, byContact.nameOf)).toEqual(['Bello', 'Abara', undefined])
  })

  it('is paused and stopped by those who may, and handed out only while it is open', async () => {
    const { id } = await roundOf(['Abara'])
    await expect(turnRound(firm.mika, id, 'paused', DAY)).rejects.toMatchObject(problem(403))
    await turnRound(firm.odile, id, 'paused', DAY)
    await expect(nextInRound(firm.ada, id, DAY)).rejects.toMatchObject(problem(409, { type: 'round-closed' }))
    await turnRound(firm.ada, id, 'stopped', DAY)
    await expect(turnRound(firm.ada, id, 'paused', DAY)).rejects.toMatchObject(problem(409))
    await turnRound(firm.ada, id, 'open', DAY)
    await changeRound(firm.ada, id, roundMannerForm.validateSync({ name: 'Autumn trial', pauseSeconds: 5 }), DAY)
    expect(await nextInRound(firm.ada, id, DAY)).toMatchObject({ name: 'Autumn trial', pauseSeconds: 5 })
  })

  it('belongs to those who work it, and to nobody else', async () => {
    const { id } = await roundOf(['Abara'])
    const own = await roundOf(['Bello'], { teamId: null })
    for (const ask of [
      readRound(firm.noor, id, DAY),
      nextInRound(firm.noor, id, DAY),
      readRoundPeople(firm.noor, id, roundPeopleQuery.validateSync({}), DAY),
      nextInRound(firm.mika, own.id, DAY),
    ])
      await expect(ask).rejects.toMatchObject(problem(404))
    const listed = async (asker: SignedIn) =>
      (await listRounds(asker, DAY)).filter(round => [id, own.id].includes(round.id)).map(round => (round.id === id ? 'team' : 'own'))
    expect([await listed(firm.noor), await listed(firm.mika), await listed(firm.ada), await listed(firm.odile)]).toEqual([
      [],
      ['team'],
      ['own', 'team'],
      ['own', 'team'],
    ])
  })

  it('refuses nobody, people without numbers, too many, and a team of others', async () => {
    const job = await makeThing(firm.ada, 'job')
    const make = (values: object) =>
      makeRound(firm.ada, roundForm.validateSync({ id: uuid(), name: 'Nobody', selection: { list, ids: [uuid()] }, ...values }), DAY)
    await expect(make({})).rejects.toMatchObject(problem(422))
    await expect(make({ selection: { list: { module: 'job', sort: 'name', direction: 'up' }, ids: [job] } })).rejects.toMatchObject(
      problem(422),
    )
    const lead = await makeLead(firm.ada, {}, numberIn())
    await expect(make({ selection: { list, ids: [lead.recordId] }, teamId: firm.noor.teamIds[0] })).rejects.toMatchObject(problem(422))
  })

  it('is worked by four at once, and each number is dialled once', async () => {
    const names = Array.from({ length: 40 }, (_, index) => `Many${String(index).padStart(2, '0')}`)
    const { id, form } = await roundOf(names)
    expect(await makeRound(firm.ada, form, DAY)).toEqual({ id })
    await Promise.all([firm.ada, firm.mika, firm.odile, firm.rafe].map(async (asker) => {
      for (let inHand = (await nextInRound(asker, id, DAY)).inHand; inHand; inHand = (await nextInRound(asker, id, DAY)).inHand)
        await hangUp(await call(asker, inHand.phoneId, DAY), DAY)
    }))
    expect(new Set(exchange.dialled.map(({ to }) => to)).size).toBe(40)
    expect(exchange.dialled).toHaveLength(40)
    expect((await readRound(firm.ada, id, DAY)).counts).toEqual({ waiting: 0, held: 0, called: 40, passed: 0, skipped: 0 })
  }, 240_000)
})
