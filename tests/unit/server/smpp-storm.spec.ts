import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo, Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { seededRandom } from '~~/practice/carrier/faults'
import { World } from '~~/practice/carrier/world'
import { NO_SMSC_FAULTS, Smsc } from '~~/practice/smsc/smsc'
import { makeAccount } from '~~/server/carriers/accounts'
import { carrierRegistered } from '~~/server/carriers/registry'
import { tx } from '~~/server/db/door'
import { conversation, message } from '~~/server/db/schema'
import { takeDue } from '~~/server/jobs/outbox'
import { useAccounts } from '~~/server/tellers/accounts'
import { listLines } from '~~/server/texting/line-edit'
import { makeLine } from '~~/server/texting/line-make'
import { sendText } from '~~/server/texting/send'
import { WORKSHOP } from '~~/server/workshop'
import { makeCarrierForm } from '~~/shared/schemas/carrier'
import { makeLineForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { fakeCarrier } from '../../support/fake-carrier'
import { later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

/**
 * Texts over SMPP while the SMS centre is throttling, breaks connections, dies and comes back, loses and doubles its receipts and sends
 * them late: none is lost, none arrives twice, and of those whose answer was lost it is said that nobody knows.
 */
const [PEOPLE, EACH, DEATHS, WINDOW] = [25, 20, 3, 10]
const ACCOUNT = { systemId: 'pannier', password: 'dispatch' }
const NOON = new Date('2026-11-25T18:00Z')

useDatabase()
const folder = mkdtempSync(join(tmpdir(), 'smsc-storm-'))
let firm: Firm
let world: World
let centre: { smsc: Smsc, server: Server }
/** How often somebody connected: all of these connections but the last broke. */
let connections = 0
let leave: () => Promise<void>
const id = uuid()
const name = `smpp-${id.slice(-8)}`

async function open(port: number, seed: number): Promise<typeof centre> {
  const faults = { ...NO_SMSC_FAULTS, throttled: 0.1, breaks: 0.01, receiptLost: 0.05, receiptTwice: 0.2, lateUpToMs: 60 }
  const smsc = new Smsc(folder, world, ACCOUNT, { sent: 5, delivered: 10 }, faults, seededRandom(seed), 10_000)
  const server = await smsc.listen(port)
  server.on('connection', () => connections++)
  return { smsc, server }
}

beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  world = new World(folder)
  centre = await open(0, 1)
  leave = await useAccounts()
  const settings = {
    host: '127.0.0.1', port: (centre.server.address() as AddressInfo).port, tls: false, systemId: ACCOUNT.systemId, systemType: '', window: WINDOW,
  }
  await makeAccount(firm.rafe, makeCarrierForm.validateSync({ id, kind: 'smpp', title: 'Harbour SMS', settings, secret: ACCOUNT.password }), NOON)
  const line = { id: uuid(), carrier: name, number: '+15035550170', name: 'Harbour line', teamId: firm.portland.teamId }
  await makeLine(firm.rafe, makeLineForm.validateSync(line), NOON)
})
afterAll(async () => {
  await leave()
  centre.smsc.die()
  centre.server.close()
  rmSync(folder, { recursive: true })
})

it('loses none and doubles none', async () => {
  const own = (await listLines(firm.rafe)).find(({ carrier }) => carrier === name)!
  const words = new Map<string, string>()
  const people = await Promise.all(Array.from({ length: PEOPLE }, () => makeLead(firm.ada)))
  for (let i = 0; i < EACH; i++) {
    for (const { phoneId } of people) {
      // every tenth is of several parts
      const text = `${uuid()} ${i % 10 === 0 ? 'Your trial week starts on Tuesday. '.repeat(8) : 'Hi'}`.trim()
      const form = textTo(phoneId, { id: own.id } as Firm['portland'], { text })
      words.set(form.id, text)
      await sendText(firm.ada, form, later(NOON, i * 1_000))
    }
  }
  const states = () => tx(database => database.select({ id: message.id, state: message.state, remote: conversation.remote }).from(message)
    .innerJoin(conversation, eq(conversation.id, message.conversationId)).where(eq(message.direction, 'out')))
  const open_ = async () => (await states()).some(({ state }) => state === 'waiting' || state === 'handing-over')

  // a second of the clock passes with each turn; waits until somebody is let in again are real
  let now = later(NOON, 60_000)
  let died = 0
  const port = (centre.server.address() as AddressInfo).port
  for (let turn = 0; await open_(); turn++) {
    now = later(now, 1_000)
    const { works } = await takeDue(WORKSHOP, () => now, 20)
    const working = Promise.all(works.map(work => work()))
    if (turn % 6 === 5 && died < DEATHS) {
      died++
      centre.smsc.die()
      await new Promise(resolve => centre.server.close(resolve))
      centre = await open(port, 10 + died)
    }
    await working
    while (carrierRegistered(name)!.state!()!.is !== 'connected') await new Promise(resolve => setTimeout(resolve, 20))
  }
  // what is on its way in the air arrives
  await new Promise(resolve => setTimeout(resolve, 1_500))

  expect(died).toBe(DEATHS)
  const all = await states()
  expect(all).toHaveLength(PEOPLE * EACH)
  const seen = (text: (typeof all)[number]) => (world.handsets.get(text.remote) ?? []).filter(one => one.text === words.get(text.id)).length
  expect(all.filter(text => seen(text) > 1)).toEqual([])
  expect(all.filter(text => text.state !== 'not-known' && seen(text) !== 1)).toEqual([])
  const count = (state: string) => all.filter(one => one.state === state).length
  // receipts that were lost leave some without a word; broken connections leave some of which nobody knows
  expect(count('delivered') + count('accepted') + count('sent') + count('not-known')).toBe(PEOPLE * EACH)
  const known = PEOPLE * EACH - count('not-known')
  expect(count('delivered')).toBeGreaterThan(known * 0.8)
  expect(count('not-known')).toBeGreaterThan(0)
  // a connection that breaks leaves a window of which nobody knows, at most; how often it breaks is chance
  expect(count('not-known')).toBeLessThanOrEqual((connections - 1) * WINDOW)
}, 240_000)
