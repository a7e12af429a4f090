import { eq, sql } from 'drizzle-orm'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { dial } from '~~/server/calling/dial'
import { takeCallEvent } from '~~/server/calling/events'
import type { HandOverAnswer } from '~~/server/carriers/port'
import { ask, tx } from '~~/server/db/door'
import { line, message, moneyAccount, moneyEntry, moneyHold } from '~~/server/db/schema'
import { changeAccount, payIn, readMoney } from '~~/server/money/accounts'
import { askForMoney } from '~~/server/money/asks'
import { settleForgotten } from '~~/server/money/forgotten'
import { removeLimit, setLimit } from '~~/server/money/limits'
import { readLedger, useOf } from '~~/server/money/use'
import { takeEvent } from '~~/server/texting/events'
import { sendText } from '~~/server/texting/send'
import { takeBack } from '~~/server/texting/take-back'
import { receiveText } from '~~/server/texting/receive'
import { dialForm } from '~~/shared/schemas/calling'
import { TAKE_BACK_MS } from '~~/shared/texting'
import { useDatabase } from '../../support/database'
import { fakeExchange } from '../../support/fake-exchange'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
const LEFT = later(DAY, TAKE_BACK_MS)
const PART = 8_000
beforeAll(async () => firm = await makeFirm())

const purse = async () => (await tx(database => database.select().from(moneyAccount).where(eq(moneyAccount.currency, 'USD'))))[0]!

/** The account is what its entries and holds add up to, whatever has happened. */
async function addsUp(): Promise<void> {
  const { rows } = await ask<{ currency: string, balance: number, entries: number, held: number, holds: number }>(sql`
    select a.currency, a.balance_micros::float8 as balance, a.held_micros::float8 as held,
      (select coalesce(sum(e.micros), 0) from ${moneyEntry} e where e.currency = a.currency)::float8 as entries,
      (select coalesce(sum(h.micros), 0) from ${moneyHold} h where h.currency = a.currency)::float8 as holds
    from ${moneyAccount} a`)
  expect(rows.length).toBeGreaterThan(0)
  for (const { balance, entries, held, holds } of rows) expect({ balance, held }).toEqual({ balance: entries, held: holds })
}

/** So much is there, in advance. */
async function have(micros: number): Promise<void> {
  const { balanceMicros } = await purse()
  await tx(async (database) => {
    await database.insert(moneyEntry).values({ id: uuid(), at: DAY, kind: 'correction', currency: 'USD', micros: micros - balanceMicros })
    await database.update(moneyAccount).set({ balanceMicros: micros, prepaid: true }).where(eq(moneyAccount.currency, 'USD'))
  })
}

async function send(values: object = {}, from = firm.portland, at = DAY) {
  const { phoneId, e164 } = await makeLead(firm.ada)
  const form = textTo(phoneId, from, values)
  await sendText(firm.ada, form, at)
  return { id: form.id, e164 }
}
const entriesOf = (id: string) => tx(database => database
  .select({ kind: moneyEntry.kind, micros: moneyEntry.micros, line: moneyEntry.lineId, by: moneyEntry.colleagueId })
  .from(moneyEntry).where(eq(moneyEntry.messageId, id)).orderBy(moneyEntry.id))
const refused = (type: string) => ({ details: { type } })

afterEach(async () => {
  await drain(later(LEFT, 5 * 3_600_000))
  await addsUp()
})

describe('what a text costs', () => {
  it('is held when it is queued, and entered when its carrier has said it', async () => {
    fakeCarrier()
    await have(1_000_000)
    const { id } = await send()
    expect(await purse()).toMatchObject({ balanceMicros: 1_000_000, heldMicros: PART })
    await drain(LEFT)
    expect(await purse()).toMatchObject({ balanceMicros: 1_000_000 - PART, heldMicros: 0 })
    expect(await entriesOf(id)).toEqual([{ kind: 'text', micros: -PART, line: firm.portland.id, by: firm.ada.id }])
  })

  it('is what the carrier says, also where that is more than its list', async () => {
    const carrier = fakeCarrier()
    await have(PART)
    const { id } = await send()
    carrier.next({ kind: 'accepted', ref: 'dearer', charge: { parts: 2, costMicros: 2 * PART, currency: 'USD' } })
    await drain(LEFT)
    expect(await entriesOf(id)).toMatchObject([{ micros: -2 * PART }])
    expect(await purse()).toMatchObject({ balanceMicros: -PART, heldMicros: 0 })
  })

  it('is what was held where its carrier says nothing, and put right by a further entry when it does', async () => {
    const carrier = fakeCarrier()
    await have(1_000_000)
    const { id } = await send()
    carrier.next({ kind: 'accepted', ref: 'silent', charge: null })
    await drain(LEFT)
    expect(await entriesOf(id)).toMatchObject([{ kind: 'text', micros: -PART }])
    const charged = { id: uuid(), at: LEFT, kind: 'charged' as const, ref: 'silent', key: null, charge: { parts: 1, costMicros: 9_500, currency: 'USD' } }
    await takeEvent('practice', charged, LEFT)
    await takeEvent('practice', { ...charged, id: uuid() }, LEFT)
    expect(await entriesOf(id)).toMatchObject([{ kind: 'text', micros: -PART }, { kind: 'correction', micros: -1_500 }])
  })

  it('moves to another currency where its carrier bills in that', async () => {
    const carrier = fakeCarrier()
    await have(1_000_000)
    const { id } = await send()
    carrier.next({ kind: 'accepted', ref: 'abroad', charge: null })
    await drain(LEFT)
    await takeEvent('practice', { id: uuid(), at: LEFT, kind: 'charged', ref: 'abroad', key: id, charge: { parts: 1, costMicros: 7_000, currency: 'GBP' } }, LEFT)
    expect((await entriesOf(id)).map(({ micros }) => micros).sort()).toEqual([-7_000, -PART, PART])
    expect(await purse()).toMatchObject({ balanceMicros: 1_000_000, heldMicros: 0 })
  })

  it.each<[string, HandOverAnswer | null]>([
    ['its carrier refuses it', { kind: 'refused', code: 'blocked' }],
    ['it is taken back', null],
  ])('is nothing where %s', async (_what, answer) => {
    const carrier = fakeCarrier()
    await have(1_000_000)
    const { id } = await send()
    if (answer) carrier.next(answer)
    else await takeBack(firm.ada, id, later(DAY, 1_000))
    await drain(LEFT)
    expect(await entriesOf(id)).toEqual([])
    expect(await purse()).toMatchObject({ balanceMicros: 1_000_000, heldMicros: 0 })
  })

  it('stays held while a rule holds the text, and is free when it is taken back', async () => {
    fakeCarrier()
    await have(1_000_000)
    const { id } = await send()
    await tx(database => database.update(line).set({ state: 'paused' }).where(eq(line.id, firm.portland.id)))
    await drain(LEFT)
    expect(await purse()).toMatchObject({ heldMicros: PART })
    await tx(database => database.update(line).set({ state: 'active' }).where(eq(line.id, firm.portland.id)))
    await takeBack(firm.ada, id, later(LEFT, 1_000))
    expect(await purse()).toMatchObject({ heldMicros: 0 })
  })

  it('is looked at again three days after its carrier has not answered: reported on it has cost what was held, otherwise nothing', async () => {
    const carrier = fakeCarrier()
    await have(1_000_000)
    const [reported, lost] = [await send(), await send({ text: 'And you?' })]
    carrier.next({ kind: 'not-known' })
    carrier.next({ kind: 'not-known' })
    await drain(LEFT)
    await takeEvent('practice', { id: uuid(), at: LEFT, kind: 'delivered', ref: 'late', key: reported.id, code: null }, LEFT)
    await settleForgotten(later(LEFT, 71 * 3_600_000))
    expect(await purse()).toMatchObject({ heldMicros: 2 * PART })
    await settleForgotten(later(LEFT, 73 * 3_600_000))
    expect(await purse()).toMatchObject({ balanceMicros: 1_000_000 - PART, heldMicros: 0 })
    expect(await entriesOf(lost.id)).toEqual([])
  })
})

describe('a text that cannot be paid', () => {
  it('is refused with what it costs and what is left, and nothing of it is kept', async () => {
    fakeCarrier()
    await have(PART - 1)
    await expect(send()).rejects.toMatchObject({
      details: { type: 'no-balance', currency: 'USD', detail: expect.stringMatching(/costs 0\.8 ¢, and 0\.8 ¢ is left|costs 0\.8 ¢/) },
    })
    expect(await purse()).toMatchObject({ heldMicros: 0 })
  })

  it('is refused to the second of two who spend the last money at once', async () => {
    fakeCarrier()
    await have(PART)
    const [a, b] = [await makeLead(firm.ada), await makeLead(firm.ada)]
    const outcomes = await Promise.allSettled([a, b].map(({ phoneId }) => sendText(firm.ada, textTo(phoneId, firm.portland), DAY)))
    expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(outcomes.find(one => one.status === 'rejected')).toMatchObject({ reason: refused('no-balance') })
    expect(await purse()).toMatchObject({ heldMicros: PART })
  })

  it('leaves all the same where there is a bill afterwards', async () => {
    fakeCarrier()
    await have(0)
    await changeAccount(firm.rafe, { currency: 'USD', prepaid: false, warnDays: 7 }, DAY)
    const { id } = await send()
    await drain(LEFT)
    expect(await entriesOf(id)).toHaveLength(1)
  })

  it('leaves all the same where it answers a STOP', async () => {
    const carrier = fakeCarrier()
    await have(1_000_000)
    const { e164 } = await send()
    await drain(LEFT)
    await have(0)
    await receiveText('practice', { id: uuid(), kind: 'received', ref: uuid(), at: LEFT, from: e164, to: firm.portland.e164, text: 'STOP' }, LEFT)
    await drain(later(LEFT, 1_000))
    expect(carrier.asked.at(-1)).toMatchObject({ to: e164, confirmsOptOut: true })
    expect(await purse()).toMatchObject({ balanceMicros: -PART })
  })

  it('is asked for once, and whoever asked hears when something is paid in, once for each time it is entered', async () => {
    fakeCarrier()
    await have(0)
    await askForMoney(firm.mika, { currency: 'USD', why: 'It cannot be paid.' }, DAY)
    await askForMoney(firm.mika, { currency: 'USD', why: 'It cannot be paid.' }, later(DAY, 1_000))
    expect((await readMoney(firm.rafe, DAY)).asks).toMatchObject([{ name: 'Mika Sand', currency: 'USD' }])
    const paid = { id: uuid(), currency: 'USD', micros: 5_000_000, words: 'Card, 1 December' }
    await payIn(firm.rafe, paid, DAY)
    await payIn(firm.rafe, paid, DAY)
    const { asks, accounts } = await readMoney(firm.rafe, DAY)
    expect(asks).toEqual([])
    expect(accounts.find(({ currency }) => currency === 'USD')).toMatchObject({ balanceMicros: 5_000_000 })
  })
})

describe('a limit', () => {
  const limit = (values: object) =>
    ({ id: uuid(), colleagueId: null, teamId: null, period: 'day' as const, currency: 'USD', micros: 2 * PART, ...values })
  const spent = async () => (await readMoney(firm.rafe, DAY)).limits.map(({ spentMicros }) => spentMicros)

  it('of a colleague holds for all that they send in a day, held or entered, and for nobody else', async () => {
    fakeCarrier()
    await have(1_000_000)
    const theirs = limit({ colleagueId: firm.mika.id })
    await setLimit(firm.rafe, theirs, DAY)
    const write = async (text: string, at = DAY) =>
      sendText(firm.mika, textTo((await makeLead(firm.mika)).phoneId, firm.portland, { text }), at)
    await write('one')
    await drain(LEFT)
    await write('two')
    expect(await spent()).toEqual([2 * PART])
    await expect(write('three')).rejects.toMatchObject(refused('over-limit'))
    await send()
    await write('tomorrow', later(DAY, 86_400_000))
    await removeLimit(firm.rafe, theirs.id, DAY)
    await write('no limit any more')
  })

  it('of a team holds for what goes from its lines, whoever writes', async () => {
    fakeCarrier()
    await have(1_000_000)
    const theirs = limit({ teamId: firm.portland.teamId, period: 'month', micros: await (async () => {
      const before = limit({ teamId: firm.portland.teamId, period: 'month', micros: 1 })
      await setLimit(firm.rafe, before, DAY)
      return (await spent())[0]! + PART
    })() })
    await setLimit(firm.rafe, theirs, DAY)
    await send()
    await expect(send({ text: 'Another' })).rejects.toMatchObject(refused('over-limit'))
    // a line of one's own is no team's
    await send({ text: 'From my own' }, firm.own)
    const [only] = (await readMoney(firm.rafe, DAY)).limits
    await removeLimit(firm.rafe, only!.id, DAY)
  })

  it('lets no two at once over it', async () => {
    fakeCarrier()
    await have(1_000_000)
    await setLimit(firm.rafe, limit({ colleagueId: firm.noor.id, micros: PART }), DAY)
    const leads = [await makeLead(firm.noor, {}, '+19025550171'), await makeLead(firm.noor, {}, '+19025550172')]
    const outcomes = await Promise.allSettled(leads.map(({ phoneId }) => sendText(firm.noor, textTo(phoneId, firm.halifax), DAY)))
    expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  })

  it('is for one colleague or one team', async () => {
    await expect(setLimit(firm.rafe, limit({}), DAY)).rejects.toMatchObject(refused('bad-input'))
  })
})

describe('what a call costs', () => {
  it('is entered once when its exchange has said it, whatever is there, and counts for no limit on texts', async () => {
    fakeExchange()
    await have(10_000)
    const { phoneId } = await makeLead(firm.ada)
    const id = uuid()
    await dial(firm.ada, dialForm.validateSync({ id, lineId: firm.portland.id, phoneId }), DAY)
    const charged = { id: uuid(), ref: `call-${id}`, key: id, kind: 'charged' as const, at: LEFT, charge: { micros: 28_000, currency: 'USD' } }
    expect(await takeCallEvent('practice', charged, LEFT)).toBe(true)
    await takeCallEvent('practice', charged, LEFT)
    await takeCallEvent('practice', { ...charged, id: uuid() }, LEFT)
    const entered = await tx(database => database.select().from(moneyEntry).where(eq(moneyEntry.callId, id)))
    expect(entered).toMatchObject([{ kind: 'call', micros: -28_000, lineId: firm.portland.id, colleagueId: firm.ada.id }])
    expect(await purse()).toMatchObject({ balanceMicros: -18_000 })
    expect(await useOf(firm.rafe, { by: 'colleague', since: LEFT.getTime() })).toContainEqual(expect.objectContaining({ key: firm.ada.id, calls: 1 }))
    // one for nothing is none
    const free = uuid()
    await dial(firm.mika, dialForm.validateSync({ id: free, lineId: firm.portland.id, phoneId: (await makeLead(firm.mika)).phoneId }), DAY)
    await takeCallEvent('practice', { ...charged, id: uuid(), ref: `call-${free}`, key: free, charge: { micros: 0, currency: 'USD' } }, LEFT)
    expect(await tx(database => database.select().from(moneyEntry).where(eq(moneyEntry.callId, free)))).toEqual([])
  })
})

describe('what an admin sees', () => {
  it('adds use up by line, colleague, team and month, and pages the ledger without a gap', async () => {
    fakeCarrier()
    await have(1_000_000)
    await send()
    await drain(LEFT)
    const since = later(DAY, -1_000).getTime()
    const by = async (what: 'line' | 'colleague' | 'team' | 'month') => (await useOf(firm.rafe, { by: what, since })).map(({ name }) => name)
    expect(await by('line')).toContain('Portland line')
    expect(await by('colleague')).toContain('Ada Lund')
    expect(await by('team')).toContain('Sales')
    expect(await by('month')).toEqual(['2026-11', '2026-11'])
    const all: string[] = []
    for (let after: string | null = null, first = true; first || after; first = false) {
      const { entries, next } = await readLedger(firm.rafe, { kind: null, after })
      all.push(...entries.map(({ id }) => id))
      after = next
    }
    const { rows } = await ask<{ count: number }>(sql`select count(*)::int as count from ${moneyEntry}`)
    expect(new Set(all).size).toBe(all.length)
    expect(all).toHaveLength(rows[0]!.count)
  })

  it('is nobody else’s to see', async () => {
    await expect(readMoney(firm.odile, DAY)).rejects.toMatchObject({ details: { status: 403 } })
    await expect(useOf(firm.ada, { by: 'line', since: 0 })).rejects.toMatchObject({ details: { status: 403 } })
  })
})

describe('whatever happens in whatever order', () => {
  type Step = { do: 'send' | 'take-back' | 'hand-over' | 'charge' | 'pay-in', pick: number, answer: 'listed' | 'silent' | 'refused' | 'lost' | 'busy' }
  const step = fc.record<Step>({
    do: fc.constantFrom('send', 'send', 'take-back', 'hand-over', 'charge', 'pay-in'),
    pick: fc.nat(20),
    answer: fc.constantFrom('listed', 'listed', 'silent', 'refused', 'lost', 'busy'),
  })
  const ANSWERS: Record<Step['answer'], (ref: string) => HandOverAnswer> = {
    listed: ref => ({ kind: 'accepted', ref, charge: { parts: 1, costMicros: PART, currency: 'USD' } }),
    silent: ref => ({ kind: 'accepted', ref, charge: null }),
    refused: () => ({ kind: 'refused', code: 'blocked' }),
    lost: () => ({ kind: 'not-known' }),
    busy: () => ({ kind: 'no-room', afterMs: 1_000 }),
  }

  it('adds up after every step, promises no more than is there, and charges each text once', async () => {
    await fc.assert(fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 25 }), async (steps) => {
      const carrier = fakeCarrier()
      await drain(later(LEFT, 5 * 3_600_000))
      const { heldMicros } = await purse()
      await have(heldMicros + 3 * PART)
      const { phoneId } = await makeLead(firm.ada)
      const sent: string[] = []
      const charged = new Set<string>()
      let at = DAY
      for (const one of steps) {
        at = later(at, 60_000)
        const id = sent[one.pick % Math.max(1, sent.length)]
        if (one.do === 'send') {
          const form = textTo(phoneId, firm.portland, { text: `Number ${uuid()}` })
          await sendText(firm.ada, form, at).then(() => sent.push(form.id), error => expect(error).toMatchObject(refused('no-balance')))
        }
        else if (one.do === 'take-back' && id) await takeBack(firm.ada, id, at).catch(error => expect(error).toMatchObject(refused('has-left')))
        else if (one.do === 'hand-over') {
          carrier.next(text => ANSWERS[one.answer](`ref-${text.key}`))
          await drain(at)
        }
        else if (one.do === 'charge' && id) {
          const charge = { parts: 1, costMicros: PART, currency: 'USD' }
          if (await takeEvent('practice', { id: uuid(), at, kind: 'charged', ref: `ref-${id}`, key: id, charge }, at)) charged.add(id)
        }
        else if (one.do === 'pay-in') {
          await payIn(firm.rafe, { id: uuid(), currency: 'USD', micros: PART, words: '' }, at)
        }
        await addsUp()
        const { balanceMicros, heldMicros: held } = await purse()
        expect(balanceMicros - held).toBeGreaterThanOrEqual(0)
      }
      for (const id of sent) {
        const total = (await entriesOf(id)).reduce((sum, { micros }) => sum + micros, 0)
        const [found] = await tx(database => database.select({ state: message.state }).from(message).where(eq(message.id, id)))
        const { state } = found!
        // what a carrier says that it took counts, whatever became of the text
        if (state === 'accepted' || charged.has(id)) expect(total).toBe(-PART)
        else if (state === 'failed' || state === 'taken-back' || state === 'waiting') expect(total).toBe(0)
      }
    }), { numRuns: 25 })
  })
})
