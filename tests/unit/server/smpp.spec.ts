import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo, Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { seededRandom } from '~~/practice/carrier/faults'
import { World } from '~~/practice/carrier/world'
import { NO_SMSC_FAULTS, Smsc, type SmscFaults } from '~~/practice/smsc/smsc'
import { changeAccount, listCarriers, makeAccount, removeAccount, tryAccount } from '~~/server/carriers/accounts'
import { carrierRegistered } from '~~/server/carriers/registry'
import { tx } from '~~/server/db/door'
import { audit, carrierAccount, conversation, line, message, activityContent, smppReceivedPart } from '~~/server/db/schema'
import { useAccounts } from '~~/server/tellers/accounts'
import { listLines } from '~~/server/texting/line-edit'
import { lineChoices, makeLine } from '~~/server/texting/line-make'
import { sendText } from '~~/server/texting/send'
import type { Bind, LongTexts } from '~~/shared/carriers'
import { makeCarrierForm, tryCarrierForm } from '~~/shared/schemas/carrier'
import { makeLineForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
const folder = mkdtempSync(join(tmpdir(), 'smsc-'))
const ACCOUNT = { systemId: 'pannier', password: 'dispatch' }
const NUMBER = '+15035550170'
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })

let firm: Firm
let world: World
let centre: Server
let smsc: Smsc
let faults: SmscFaults
let port: number
let leave: () => Promise<void>
const accountId = uuid()

beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  world = new World(folder)
  faults = { ...NO_SMSC_FAULTS }
  smsc = new Smsc(folder, world, ACCOUNT, { sent: 5, delivered: 5 }, faults, seededRandom(7), 1_000)
  centre = await smsc.listen(0)
  port = (centre.address() as AddressInfo).port
  leave = await useAccounts()
})
afterAll(async () => {
  await leave()
  smsc.die()
  centre.close()
  rmSync(folder, { recursive: true })
})
afterEach(() => void Object.assign(faults, NO_SMSC_FAULTS))

const settingsOf = (more: object = {}) =>
  ({ host: '127.0.0.1', port, tls: false, systemId: ACCOUNT.systemId, systemType: '', bind: 'transceiver' as const, longTexts: 'header' as const, window: 5, ...more })
const formOf = (more: object = {}) =>
  makeCarrierForm.validateSync({ id: accountId, kind: 'smpp', title: 'Harbour SMS', settings: settingsOf(), secret: ACCOUNT.password, ...more })
const name = () => `smpp-${accountId.slice(-8)}`

/** Asks until it holds; a test that waits for what never comes fails by Jest's own limit. */
async function until(holds: () => Promise<unknown> | unknown): Promise<void> {
  while (!await holds()) await new Promise(resolve => setTimeout(resolve, 10))
}
const connected = () => until(() => carrierRegistered(name())?.state?.()?.is === 'connected')
async function connectAs(more: { bind?: Bind, longTexts?: LongTexts }): Promise<void> {
  await changeAccount(firm.rafe, accountId, { ...formOf({ settings: settingsOf(more) }), secret: null }, new Date())
  await until(async () => (await listCarriers(firm.rafe)).find(one => one.name === name())?.state?.is === 'connecting' || carrierRegistered(name())!.state!()!.since > 0)
  await connected()
}
const stored = async (id: string) => (await tx(database => database.select().from(message).where(eq(message.id, id))))[0]!

/** Sends a text over it, and waits until it is in this state. */
async function send(text: string, state = 'delivered') {
  const now = new Date('2026-11-25T18:00Z')
  const lead = await makeLead(firm.ada)
  const own = (await listLines(firm.rafe)).find(({ e164 }) => e164 === NUMBER)!
  const form = textTo(lead.phoneId, { id: own.id } as Firm['portland'], { text })
  await sendText(firm.ada, form, now)
  await drain(later(now, 10_000))
  await until(async () => (await stored(form.id)).state === state)
  return { ...lead, id: form.id }
}
const shownOn = (handset: string) => (world.handsets.get(handset) ?? []).map(({ text, parts }) => ({ text, parts }))

describe('an account', () => {
  it('is tried before it is kept, and says what is wrong', async () => {
    const attempt = (more: object, secret = ACCOUNT.password) =>
      tryAccount(firm.rafe, tryCarrierForm.validateSync({ kind: 'smpp', title: 'New', settings: settingsOf(more), secret }), new Date())
    expect(await attempt({})).toEqual({ ok: true, said: '127.0.0.1 has let pannier in.' })
    expect(await attempt({}, 'wrong')).toEqual({ ok: false, said: 'The password is wrong.' })
    expect(await attempt({ systemId: 'nobody' })).toEqual({ ok: false, said: 'It does not know this system id.' })
    expect(await attempt({ port: 1 })).toEqual({ ok: false, said: 'Nobody answers at this address and port.' })
    expect(await attempt({ bind: 'pair' })).toMatchObject({ ok: true })
    await expect(tryAccount(firm.ada, tryCarrierForm.validateSync({ kind: 'smpp', title: 'New', settings: settingsOf(), secret: 'x' }), new Date()))
      .rejects.toMatchObject(problem(403))
  })

  it('points at what came along with a copy', () => {
    for (const [more, path] of [
      [{ secret: 'dispatch ' }, 'secret'], [{ secret: 'dis\u200Bpat' }, 'secret'],
      [{ settings: settingsOf({ host: ' smsc.example' }) }, 'settings.host'], [{ settings: settingsOf({ host: 'smpp://smsc.example' }) }, 'settings.host'],
      [{ settings: settingsOf({ systemId: 'pannier\uFEFF' }) }, 'settings.systemId'], [{ settings: settingsOf({ port: 70_000 }) }, 'settings.port'],
    ] as const) expect(() => formOf(more)).toThrow(expect.objectContaining({ path }))
  })

  it('is kept by admins alone, its password sealed, and connects by itself', async () => {
    await expect(makeAccount(firm.odile, formOf(), new Date())).rejects.toMatchObject(problem(403))
    await makeAccount(firm.rafe, formOf(), new Date())
    // sending it again makes nothing twice
    await makeAccount(firm.rafe, formOf(), new Date())
    await connected()
    const listed = (await listCarriers(firm.rafe)).find(one => one.name === name())
    expect(listed).toMatchObject({ title: 'Harbour SMS', account: { settings: settingsOf() }, state: { is: 'connected' }, lines: [] })
    const [{ secret } = { secret: '' }] = await tx(database => database.select().from(carrierAccount).where(eq(carrierAccount.id, accountId)))
    const notes = await tx(database => database.select().from(audit).where(sql`${audit.action} like 'carrier-%'`))
    expect(notes.length).toBeGreaterThan(0)
    expect(JSON.stringify([listed, secret, notes])).not.toContain(ACCOUNT.password)
  })

  it('gets a line of its own, whose number is typed', async () => {
    const form = makeLineForm.validateSync({ id: uuid(), carrier: name(), number: '503 555 0170', name: 'Harbour line', teamId: firm.portland.teamId })
    expect((await lineChoices(firm.rafe, name())).numbers).toBeNull()
    await expect(makeLine(firm.ada, form, new Date())).rejects.toMatchObject(problem(403))
    await expect(makeLine(firm.rafe, { ...form, number: 'harbour' }, new Date())).rejects.toMatchObject(problem(422, { fields: { number: expect.any(String) } }))
    await makeLine(firm.rafe, form, new Date())
    await makeLine(firm.rafe, form, new Date())
    await expect(makeLine(firm.rafe, { ...form, id: uuid() }, new Date()))
      .rejects.toMatchObject(problem(422, { fields: { number: 'Harbour line has this number already.' } }))
    expect((await listLines(firm.rafe)).find(({ e164 }) => e164 === NUMBER)).toMatchObject({ name: 'Harbour line', carrier: name(), state: 'active' })
    await expect(removeAccount(firm.rafe, accountId, new Date())).rejects.toMatchObject(problem(409, { type: 'has-lines' }))
  })
})

describe('a text over it', () => {
  const LONG = { 'GSM-7': 'Your trial week starts on Tuesday. '.repeat(9), 'UCS-2': 'Fährt morgen 🚲 los, ça va? '.repeat(7) }

  it.each(['header', 'fields', 'whole'] as const)('arrives as it was written, long ones by way of “%s”', async (longTexts) => {
    await connectAs({ longTexts })
    for (const text of ['Hi Iris, € 640 {a} month?', 'Привет 👋', LONG['GSM-7'], LONG['UCS-2']]) {
      const { e164 } = await send(text)
      expect(shownOn(e164).map(one => one.text)).toEqual([text])
    }
  })

  it('goes over two connections where the carrier wants one for each way', async () => {
    await connectAs({ bind: 'pair' })
    expect(shownOn((await send('Over two')).e164)).toEqual([{ text: 'Over two', parts: 1 }])
    await connectAs({})
  })

  it('that does not arrive says why, and one of whose parts does not is not there', async () => {
    const lead = await makeLead(firm.ada)
    await world.record({ do: 'switch', number: lead.e164, on: false })
    const own = (await listLines(firm.rafe)).find(({ e164 }) => e164 === NUMBER)!
    const form = textTo(lead.phoneId, { id: own.id } as Firm['portland'], { text: LONG['GSM-7'] })
    await sendText(firm.ada, form, new Date('2026-11-25T18:00Z'))
    await drain(new Date('2026-11-25T18:00:10Z'))
    await until(async () => (await stored(form.id)).state === 'undelivered')
    expect(await stored(form.id)).toMatchObject({ code: 'network-027' })
  })

  it('waits while the carrier is busy, and is not sent again where its answer was lost', async () => {
    const lead = await makeLead(firm.ada)
    const own = (await listLines(firm.rafe)).find(({ e164 }) => e164 === NUMBER)!
    const form = textTo(lead.phoneId, { id: own.id } as Firm['portland'], { text: 'Are you there?' })
    faults.throttled = 1
    await sendText(firm.ada, form, new Date('2026-11-25T18:00Z'))
    await drain(new Date('2026-11-25T18:00:10Z'))
    expect(await stored(form.id)).toMatchObject({ state: 'waiting' })
    faults.throttled = 0
    faults.breaks = 1
    await drain(new Date('2026-11-25T18:00:20Z'))
    expect(await stored(form.id)).toMatchObject({ state: 'not-known', code: 'answer-lost' })
    await drain(new Date('2026-11-25T19:30Z'))
    await until(() => shownOn(lead.e164).length > 0)
    expect(shownOn(lead.e164)).toEqual([{ text: 'Are you there?', parts: 1 }])
    await connected()
  })

  it('waits while nobody can be reached, and leaves once it is back', async () => {
    faults.breaks = 1
    await send('This one breaks it off', 'not-known')
    faults.breaks = 0
    const lead = await makeLead(firm.ada)
    const own = (await listLines(firm.rafe)).find(({ e164 }) => e164 === NUMBER)!
    const form = textTo(lead.phoneId, { id: own.id } as Firm['portland'], { text: 'Later' })
    await sendText(firm.ada, form, new Date('2026-11-25T18:00Z'))
    await drain(new Date('2026-11-25T18:00:10Z'))
    expect(await stored(form.id)).toMatchObject({ state: 'waiting' })
    await connected()
    await drain(new Date('2026-11-25T18:10Z'))
    await until(async () => (await stored(form.id)).state === 'delivered')
  })
})

describe('a text from somebody', () => {
  const heard = () => tx(database => database.select({ words: activityContent.words, state: message.state }).from(message)
    .innerJoin(conversation, eq(conversation.id, message.conversationId)).innerJoin(line, eq(line.id, conversation.lineId))
    .innerJoin(activityContent, eq(activityContent.activityId, message.activityId))
    .where(sql`${line.e164} = ${NUMBER} and ${message.direction} = 'in'`))

  it('is put together of its parts, and each is heard once', async () => {
    const { e164: number } = await makeLead(firm.ada)
    const long = 'Wir hätten gern 4 Räder – geht das am Donnerstag? 🚲 '.repeat(6)
    await smsc.write(number, NUMBER, long)
    await smsc.write(number, NUMBER, 'ok')
    await until(async () => (await heard()).length === 2)
    expect((await heard()).map(({ words }) => words).sort()).toEqual([long.trim(), 'ok'].sort())
    expect(await tx(database => database.select().from(smppReceivedPart))).toEqual([])
  })
})
