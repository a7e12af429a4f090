import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createApp, toNodeListener } from 'h3'
import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { Desk } from '~~/practice/carrier/desk'
import { PortingDesk } from '~~/practice/carrier/portings'
import { NumberBook } from '~~/practice/carrier/book'
import { NO_FAULTS, seededRandom } from '~~/practice/carrier/faults'
import { carrierRouter } from '~~/practice/carrier/http'
import { Network } from '~~/practice/carrier/network'
import type { Reporter } from '~~/practice/carrier/reporter'
import { World } from '~~/practice/carrier/world'
import { withWhomItRings } from '~~/server/calling/rings-with'
import { practiceCarrier } from '~~/server/carriers/practice'
import { registerCarrier } from '~~/server/carriers/registry'
import { tx } from '~~/server/db/door'
import { audit, line, moneyAccount, moneyEntry } from '~~/server/db/schema'
import { readLedger, useOf } from '~~/server/money/use'
import { catchUp, fetchPrices } from '~~/server/tellers/keep-up'
import { carrierTeller } from '~~/server/tellers/tellers'
import { listLines } from '~~/server/texting/line-edit'
import { stepLine } from '~~/server/texting/line-life'
import { lineChoices, makeLine } from '~~/server/texting/line-make'
import { isOpenAt } from '~~/server/texting/line-open'
import { offersOf } from '~~/server/texting/line-rent'
import { takeEvent } from '~~/server/texting/events'
import { heedNumber, heedNumbers } from '~~/server/texting/line-told'
import { sendText } from '~~/server/texting/send'
import { bringAgain } from '~~/server/texting/porting'
import { readSetUp } from '~~/server/pages/set-up'
import { makeLineForm, portingForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

/** Lines from when they are asked for until they have ended, with the practice carrier's own interface and book behind them. */
useDatabase()
const folder = mkdtempSync(join(tmpdir(), 'line-life-'))
const [EUGENE, TORONTO, MOBILE] = ['+14585550121', '+16475550131', '+447700900701']
const [US_RENT, CA_RENT, GB_FIRST] = [1_150_000, 1_300_000, 4_100_000]
const DAY_MS = 86_400_000

let firm: Firm
let server: Server
let url: string
let book: NumberBook
let portings: PortingDesk
const clock = { now: DAY.getTime() }
const carrier = () => practiceCarrier({ url, key: 'key', webhookSecret: `whsec_${Buffer.from('secret').toString('base64')}` })
const hear = () => catchUp(carrierTeller(carrier()), () => new Date(clock.now))

beforeAll(async () => {
  firm = await makeFirm()
  const world = new World(folder)
  const reporter = { send: () => undefined } as unknown as Reporter
  const network = new Network(world, reporter, { sent: 1, delivered: 1 }, NO_FAULTS, seededRandom(1))
  book = new NumberBook(folder, world, event => network.tell(event), () => clock.now)
  ;(await book.open())()
  portings = new PortingDesk(folder, world, book, event => network.tell(event), () => clock.now)
  const desk = new Desk(folder, world, event => network.tell(event), () => clock.now)
  const app = createApp().use(carrierRouter(world, network, { book, desk, portings }, { key: 'key', perSecond: 1_000 }, seededRandom(1)))
  server = createServer(toNodeListener(app))
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  registerCarrier(carrier())
  await fetchPrices(carrier())
  await pay(50_000_000)
})
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true })
})
beforeEach(() => clock.now += 60_000)

async function pay(micros: number): Promise<void> {
  await tx(async (database) => {
    const [{ balanceMicros } = { balanceMicros: 0 }] = await database.select().from(moneyAccount).where(eq(moneyAccount.currency, 'USD'))
    await database.insert(moneyEntry).values({ id: uuid(), at: DAY, kind: 'correction', currency: 'USD', micros: micros - balanceMicros })
    await database.update(moneyAccount).set({ balanceMicros: micros, prepaid: true }).where(eq(moneyAccount.currency, 'USD'))
  })
}
const balance = async () => (await tx(database => database.select().from(moneyAccount)))[0]!.balanceMicros
const sumOfEntries = async () => (await tx(database => database.select().from(moneyEntry))).reduce((all, { micros }) => all + micros, 0)
afterEach(async () => expect(await sumOfEntries()).toBe(await balance()))

const now = () => new Date(clock.now)
const formOf = (number: string, name: string, more: object = {}) =>
  makeLineForm.validateSync({ id: uuid(), carrier: 'practice', number, name, teamId: firm.portland.teamId, takes: true, ...more })
const lineOf = async (number: string) => (await listLines(firm.rafe)).find(({ e164 }) => e164 === number)
const rentOf = async (number: string) => tx(database => database.select({ micros: moneyEntry.micros }).from(moneyEntry)
  .innerJoin(line, eq(line.id, moneyEntry.lineId)).where(eq(line.e164, number)))
const step = async (number: string, ...[taken, asker = firm.rafe]: [Parameters<typeof stepLine>[2], Parameters<typeof stepLine>[0]?]) =>
  stepLine(asker, (await lineOf(number))!.id, taken, now())
const stored = async (number: string) => (await tx(database => database.select().from(line).where(eq(line.e164, number))))[0]!

describe('a number that is taken', () => {
  it('is offered with what it costs, only to who sets up lines', async () => {
    const wish = { carrier: 'practice', country: '', place: 'oregon', digits: '(458) 555-0121' }
    expect(await offersOf(firm.rafe, wish)).toEqual([
      { e164: EUGENE, country: 'US', place: 'Eugene, Oregon', does: ['text', 'picture', 'call'], days: 0, rent: { micros: US_RENT, currency: 'USD' }, setUp: { micros: 0, currency: 'USD' } },
    ])
    await expect(offersOf(firm.ada, wish)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(makeLine(firm.ada, formOf(EUGENE, 'Mine'), now())).rejects.toMatchObject({ details: { status: 403 } })
  })

  it('is a line at once, and paid for once, however often it is asked for and told', async () => {
    const before = await balance()
    const form = formOf(EUGENE, 'Eugene line')
    await makeLine(firm.rafe, form, now())
    await makeLine(firm.rafe, form, now())
    await hear()
    await hear()
    expect(await lineOf(EUGENE)).toMatchObject({ name: 'Eugene line', state: 'active', rented: true, rent: { micros: US_RENT, currency: 'USD' }, turnsAt: expect.any(Number) })
    expect(await rentOf(EUGENE)).toEqual([{ micros: -US_RENT }])
    expect(await balance()).toBe(before - US_RENT)
    expect(await offersOf(firm.rafe, { carrier: 'practice', country: '', place: '', digits: EUGENE })).toEqual([])
    const { phoneId } = await makeLead(firm.ada)
    await expect(sendText(firm.ada, textTo(phoneId, await stored(EUGENE) as never), now())).resolves.toBeDefined()
  })

  it('of a country with papers is there after days, and is texted from no sooner', async () => {
    await makeLine(firm.rafe, formOf(MOBILE, 'London line'), now())
    await hear()
    expect(await lineOf(MOBILE)).toMatchObject({ state: 'ordered', turnsAt: clock.now + 3 * DAY_MS })
    expect(await rentOf(MOBILE)).toEqual([])
    expect(await stored(MOBILE)).toMatchObject({ active: false })
    clock.now += 3 * DAY_MS
    await book.hasten(MOBILE)
    await hear()
    expect(await lineOf(MOBILE)).toMatchObject({ state: 'active' })
    expect(await rentOf(MOBILE)).toEqual([{ micros: -GB_FIRST }])
    const told = await tx(database => database.select().from(audit).where(eq(audit.action, 'line-told')))
    expect(told).toMatchObject([{ colleagueId: null, details: { from: 'ordered', to: 'active' } }])
  })

  it('is not taken where it cannot be paid', async () => {
    const before = await balance()
    await pay(CA_RENT - 1)
    await expect(makeLine(firm.rafe, formOf(TORONTO, 'Toronto line'), now())).rejects.toMatchObject({ details: { status: 409, type: 'no-balance' } })
    expect(book.isTaken(TORONTO)).toBe(false)
    expect(await lineOf(TORONTO)).toBeUndefined()
    await pay(before)
  })

  it('is not taken from somebody else, nor given a name that there is', async () => {
    await expect(makeLine(firm.rafe, formOf('+15035559999', 'Nobody’s'), now())).rejects.toMatchObject({ details: { fields: { number: expect.stringContaining('Somebody else') } } })
    await expect(makeLine(firm.rafe, formOf(TORONTO, 'Eugene line'), now())).rejects.toMatchObject({ details: { fields: { name: expect.stringContaining('called so') } } })
    expect(book.isTaken(TORONTO)).toBe(false)
  })

  it('is ours also where we lost the answer, and offered to be made a line', async () => {
    await book.take(TORONTO)
    await hear()
    expect((await lineChoices(firm.rafe, 'practice')).numbers).toContain(TORONTO)
    expect(await rentOf(TORONTO)).toEqual([])
    const paid = await tx(database => database.select().from(moneyEntry).where(eq(moneyEntry.words, TORONTO)))
    expect(paid).toMatchObject([{ kind: 'rent', micros: -CA_RENT, lineId: null }])
    await makeLine(firm.rafe, formOf(TORONTO, 'Toronto line', { takes: false }), now())
    expect(await lineOf(TORONTO)).toMatchObject({ state: 'active', rent: { micros: CA_RENT } })
    // what it cost before it was a line is told with the line that it has become
    expect((await readLedger(firm.rafe, { kind: 'rent', after: null })).entries[0]).toMatchObject({ line: 'Toronto line', words: '', micros: -CA_RENT })
    expect(await useOf(firm.rafe, { by: 'line', since: 0 })).toContainEqual({ key: (await lineOf(TORONTO))!.id, name: 'Toronto line', currency: 'USD', micros: CA_RENT, texts: 0, calls: 0 })
  })
})

describe('a line that is paused', () => {
  it('is silent: nothing leaves over it and it rings with nobody, and its carrier’s months change nothing of that', async () => {
    await step(EUGENE, 'pause')
    await step(EUGENE, 'pause')
    const paused = await stored(EUGENE)
    expect(paused).toMatchObject({ state: 'paused', active: false })
    const { phoneId } = await makeLead(firm.ada)
    await expect(sendText(firm.ada, textTo(phoneId, paused as never), now())).rejects.toMatchObject({ details: { fields: { lineId: expect.stringContaining('not in use') } } })
    expect(await withWhomItRings(uuid(), paused, now())).toEqual([])
    expect(isOpenAt(paused, now())).toBe(false)
    const before = await balance()
    await book.hasten(EUGENE)
    await hear()
    expect(await lineOf(EUGENE)).toMatchObject({ state: 'paused' })
    expect(await balance()).toBe(before - US_RENT)
    await step(EUGENE, 'go-on')
    expect(await stored(EUGENE)).toMatchObject({ state: 'active', active: true })
    const steps = await tx(database => database.select().from(audit).where(eq(audit.action, 'line-stepped')))
    expect(steps.map(({ details }) => (details as { step: string }).step)).toEqual(['pause', 'go-on'])
  })
})

describe('a line that is ended', () => {
  it('works until its paid month is over, and can be kept until then', async () => {
    await step(EUGENE, 'end')
    await step(EUGENE, 'end')
    expect(await stored(EUGENE)).toMatchObject({ state: 'ending', active: true })
    await expect(step(EUGENE, 'pause')).rejects.toMatchObject({ details: { status: 409, type: 'not-now' } })
    await step(EUGENE, 'keep')
    expect(await stored(EUGENE)).toMatchObject({ state: 'active' })
    await step(EUGENE, 'end')
    clock.now += DAY_MS
    await book.hasten(EUGENE)
    await hear()
    expect(await stored(EUGENE)).toMatchObject({ state: 'ended', active: false })
    await expect(makeLine(firm.rafe, formOf(EUGENE, 'Another'), now())).rejects.toMatchObject({ details: { fields: { number: expect.stringContaining('Take that line up again') } } })
  })

  it('is taken up again at its carrier, and paid for anew', async () => {
    const before = await balance()
    clock.now += DAY_MS
    await step(EUGENE, 'take-up')
    await hear()
    expect(await stored(EUGENE)).toMatchObject({ state: 'active' })
    expect(await balance()).toBe(before - US_RENT)
  })

  it('cannot be taken up where the carrier has its number no longer, and nothing changes', async () => {
    await tx(database => database.update(line).set({ state: 'ended', e164: '+14585550199' }).where(eq(line.e164, TORONTO)))
    await expect(step('+14585550199', 'take-up')).rejects.toMatchObject({ details: { fields: { number: expect.stringContaining('Somebody else') } } })
    expect(await stored('+14585550199')).toMatchObject({ state: 'ended' })
  })

  it('ends at once where its carrier rents nothing out', async () => {
    registerCarrier({ ...carrier(), name: 'bare', rental: undefined })
    await tx(database => database.update(line).set({ carrier: 'bare' }).where(eq(line.id, firm.second.id)))
    await step(firm.second.e164, 'end')
    expect(await stored(firm.second.e164)).toMatchObject({ state: 'ended' })
    await step(firm.second.e164, 'take-up')
    expect(await stored(firm.second.e164)).toMatchObject({ state: 'active' })
  })
})

describe('what a carrier says', () => {
  it('too late is not heeded', async () => {
    await heedNumber('practice', { e164: EUGENE, state: 'ended', until: now() }, later(now(), -3_600_000))
    expect(await stored(EUGENE)).toMatchObject({ state: 'active' })
  })

  it('by a clock that is fast does not make us deaf to what it says next', async () => {
    const event = { id: 'fast', kind: 'number' as const, e164: EUGENE, state: 'given' as const, until: later(now(), DAY_MS), charge: null, at: later(now(), 7_200_000) }
    await takeEvent('practice', event, now())
    clock.now += 60_000
    await step(EUGENE, 'end')
    expect(await stored(EUGENE)).toMatchObject({ state: 'ending' })
    await step(EUGENE, 'keep')
  })

  it('and never reached us is read with its numbers', async () => {
    await book.end(EUGENE)
    await heedNumbers(carrier(), now())
    expect(await stored(EUGENE)).toMatchObject({ state: 'ending' })
    // those that were there before have their month from then on
    expect(await lineOf(firm.portland.e164)).toMatchObject({ state: 'active', rented: true, rent: { micros: US_RENT } })
  })

  it('cannot be asked while it is away: nothing changes', async () => {
    registerCarrier(practiceCarrier({ url: 'http://127.0.0.1:1', key: 'key', webhookSecret: 'whsec_c2VjcmV0' }))
    await expect(step(EUGENE, 'keep')).rejects.toMatchObject({ details: { status: 409, type: 'carrier-away' } })
    await expect(offersOf(firm.rafe, { carrier: 'practice', country: '', place: '', digits: '' })).rejects.toMatchObject({ details: { type: 'carrier-away' } })
    expect(await stored(EUGENE)).toMatchObject({ state: 'ending' })
    registerCarrier(carrier())
  })
})

describe('a number that another carrier has', () => {
  const OURS = '+12065550142'
  const bringing = (more: object = {}) => portingForm.validateSync({ from: 'Harbour Phones', account: 'HP-004711', ...more })
  const bring = (number: string, name: string, more: object = {}) =>
    makeLine(firm.rafe, formOf(number, name, { takes: false, brings: bringing(more) }), now())
  const isBrought = async (number: string) => {
    await portings.hasten(number)
    await hear()
    return lineOf(number)
  }

  it('is brought over step by step, works here from its day on, and is paid for from then', async () => {
    const before = await balance()
    expect(await lineChoices(firm.rafe, 'practice')).toMatchObject({ brings: true })
    await bring(OURS, 'Seattle line', { wishedDay: '2026-12-24' })
    expect(await lineOf(OURS)).toMatchObject({ state: 'ordered', turnsAt: null, porting: { from: 'Harbour Phones', state: 'asked', askedAt: clock.now } })
    expect(await stored(OURS)).toMatchObject({ active: false })
    clock.now += DAY_MS
    expect(await isBrought(OURS)).toMatchObject({ state: 'ordered', porting: { state: 'agreed', day: '2026-12-24' } })
    expect((await readSetUp(firm.rafe, now())).theirs).toContainEqual(expect.objectContaining({ what: 'The number of “Seattle line” is brought over from Harbour Phones' }))
    expect(await balance()).toBe(before)
    clock.now = Date.parse('2026-12-24T12:00Z')
    expect(await isBrought(OURS)).toMatchObject({ state: 'active', porting: null })
    await heedNumbers(carrier(), now())
    expect(await lineOf(OURS)).toMatchObject({ state: 'active', rent: { micros: US_RENT } })
    expect(await balance()).toBe(before - US_RENT)
    // told once more it is the same
    await hear()
    expect(await rentOf(OURS)).toHaveLength(1)
  })

  it('that is sent back is asked for again with what was wrong put right, and not otherwise', async () => {
    const number = '+12065550143'
    await bring(number, 'Tacoma line', { account: '4711' })
    const { id } = (await lineOf(number))!
    await expect(bringAgain(firm.rafe, id, bringing(), now())).rejects.toMatchObject({ details: { status: 409 } })
    expect(await isBrought(number)).toMatchObject({ porting: { state: 'sent-back', words: expect.stringContaining('4711') } })
    expect((await readSetUp(firm.rafe, now())).toDo.map(({ what }) => what)).toContain('1 number could not be brought over yet.')
    clock.now += 60_000
    await expect(bringAgain(firm.ada, id, bringing(), now())).rejects.toMatchObject({ details: { status: 403 } })
    await bringAgain(firm.rafe, id, bringing(), now())
    expect(await lineOf(number)).toMatchObject({ porting: { state: 'asked', account: 'HP-004711', words: '' } })
    clock.now += DAY_MS
    expect(await isBrought(number)).toMatchObject({ porting: { state: 'agreed', day: expect.any(String) } })
    // called off it stays where it was
    await step(number, 'end')
    expect(await lineOf(number)).toMatchObject({ state: 'ended', porting: null })
    await isBrought(number)
    expect([(await lineOf(number))?.state, book.works(number)]).toEqual(['ended', false])
  })

  it('is none that the carrier has already, that is no number of fiction, or of a carrier that brings none', async () => {
    await expect(bring(EUGENE, 'Again')).rejects.toMatchObject({ details: { status: 422 } })
    await expect(bring('+12065551234', 'Real')).rejects.toMatchObject({ details: { status: 422, fields: { number: expect.stringContaining('cannot bring') } } })
    expect(() => bringing({ account: '' })).toThrow(/stands on their bills/)
    expect(() => bringing({ wishedDay: 'soon' })).toThrow(/a day such as/)
  })
})
