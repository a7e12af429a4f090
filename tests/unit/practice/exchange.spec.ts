import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import wavefile from 'wavefile'
import type { CallEvent } from '~~/practice/exchange/call'
import { Exchange } from '~~/practice/exchange/exchange'
import { mannerOf } from '~~/practice/exchange/manners'
import { madeUpSound } from '~~/practice/exchange/sound'

const folder = mkdtempSync(join(tmpdir(), 'exchange-'))
afterAll(() => rmSync(folder, { recursive: true }))

const PACE = { ringing: 1, pickUp: 5, mailbox: 5, mailboxTakes: 5, patience: 30, busy: 2, speaking: 0.01 }
const [LINE, PHONE] = ['+15035550118', '+18085550142']
let worlds = 0
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

function open(where = `w${worlds++}`, off: string[] = [], pace: Partial<typeof PACE> = {}) {
  /** What it tells, and apart from that what calls have cost. */
  const [told, charged]: [CallEvent[], CallEvent[]] = [[], []]
  const send = (event: object) => void ((event as CallEvent).type === 'call.charged' ? charged : told).push(event as CallEvent)
  const exchange = new Exchange(join(folder, where), { send }, { ...PACE, ...pace }, phone => off.includes(phone))
  return { exchange, told, charged, where }
}
/** Waits until the exchange has told of an end. */
async function ended(told: CallEvent[], count = 1): Promise<string[]> {
  while (told.filter(({ type }) => type === 'call.ended').length < count) await new Promise(resolve => setTimeout(resolve, 2))
  return told.map(({ type, data }) => [type.slice(5), data.by, data.why, data.side].filter(Boolean).join(' '))
}

describe('the practice exchange', () => {
  it.each([
    ['lets-it-ring', ['ringing', 'ended no-answer network']],
    ['busy', ['ended busy them']],
    ['no-such-number', ['ended no-such-number network']],
    ['mailbox', ['ringing', 'answered machine', 'ended hung-up them']],
  ] as const)('calls a telephone that %s', async (manner, events) => {
    const { exchange, told } = open()
    await exchange.setManner(PHONE, manner)
    await exchange.dial('a', LINE, PHONE)
    expect(await ended(told)).toEqual(events)
  })

  it('charges each minute that was begun of what our customer has called and somebody has taken, and nothing else', async () => {
    const { exchange, told, charged } = open()
    await exchange.setManner(PHONE, 'mailbox')
    const call = await exchange.dial('a', LINE, PHONE)
    await ended(told)
    while (charged.length === 0) await pause(2)
    expect(charged.map(({ data }) => [data.id, data.price])).toEqual([[call.id, { micros: 14_000, currency: 'USD' }]])
    await exchange.setManner(PHONE, 'busy')
    await exchange.dial('b', LINE, PHONE)
    await ended(told, 2)
    await pause(20)
    expect(charged).toHaveLength(1)
  })

  it('is told to hold, to mute and to end a call that was picked up, and only then', async () => {
    const { exchange, told } = open()
    await exchange.setManner(PHONE, 'by-hand')
    const call = await exchange.dial('a', LINE, PHONE)
    expect(await exchange.turn(call, 'hold', true)).toBe(false)
    expect(await exchange.answer(call, 'person')).toBe(true)
    expect(await exchange.answer(call, 'person')).toBe(false)
    expect([await exchange.turn(call, 'hold', true), await exchange.turn(call, 'mute', true), call.held, call.muted]).toEqual([
      true,
      true,
      true,
      true,
    ])
    expect(await exchange.end(call, 'hung-up', 'us')).toBe(true)
    expect([await exchange.end(call, 'hung-up', 'them'), await exchange.turn(call, 'hold', false), exchange.onPhone(PHONE)]).toEqual([
      false,
      false,
      null,
    ])
    expect((await ended(told)).at(-1)).toBe('ended hung-up us')
  })

  it('makes one call of one key, finds a telephone that is off, and one that is talking already', async () => {
    const { exchange, told } = open(undefined, ['+18085550199'])
    await exchange.setManner(PHONE, 'picks-up')
    const first = await exchange.dial('a', LINE, PHONE)
    expect(await exchange.dial('a', LINE, PHONE)).toBe(first)
    while (first.state !== 'talking') await new Promise(resolve => setTimeout(resolve, 2))
    await exchange.dial('b', LINE, PHONE)
    await exchange.dial('c', LINE, '+18085550199')
    expect((await ended(told, 2)).filter(one => one.startsWith('ended')).sort()).toEqual(['ended busy them', 'ended unreachable network'])
    expect(first.state).toBe('talking')
  })

  it('rings telephones of ours along with what comes in: the one that is picked up has it, and the others ring no more', async () => {
    const { exchange, told } = open()
    const call = await exchange.callFrom(PHONE, LINE)
    const [mine, other] = ['+15035550151', '+15035550152']
    expect(exchange.ringAlong(call, [{ number: mine, desk: 'm' }, { number: other, desk: 'm' }], true)).toBe(true)
    expect([exchange.onPhone(mine), exchange.onPhone(other)]).toEqual([call, call])
    expect(await exchange.declineOwn(call, other)).toBe(true)
    expect([exchange.onPhone(other), call.state]).toEqual([null, 'ringing'])
    expect(await exchange.pickUpOwn(call, other)).toBe(false)
    expect(await exchange.pickUpOwn(call, mine)).toBe(true)
    expect([call.state, call.recording, exchange.onPhone(mine)]).toEqual(['talking', true, call])
    expect([await exchange.answer(call, 'person'), exchange.ringAlong(call, [], false)]).toEqual([false, false])
    await pause(3)
    await exchange.end(call, 'hung-up', 'us')
    expect((await ended(told)).slice(0, 5)).toEqual(['incoming', 'taken', 'answered person', 'switched', 'ended hung-up us'])
    expect(told.find(({ type }) => type === 'call.taken')!.data.desk).toBe('m')
  })

  it('brings a call from a telephone to a line, and gives up after a while', async () => {
    const { exchange, told } = open()
    await exchange.callFrom(PHONE, LINE)
    expect(await ended(told)).toEqual(['incoming', 'ended no-answer network'])
    expect(told[0]!.data).toMatchObject({ direction: 'in', line: LINE, phone: PHONE, key: null })
  })

  it('records from the answer on where it is told so with the call, until it is told to stop', async () => {
    const { exchange, told } = open()
    await exchange.setManner(PHONE, 'by-hand')
    const call = await exchange.dial('a', LINE, PHONE, { record: true })
    const begun = Date.now()
    await exchange.answer(call, 'person')
    expect(call.recording).toBe(true)
    await pause(40)
    await exchange.turn(call, 'record', false)
    const stopped = Date.now()
    await pause(40)
    await exchange.end(call, 'hung-up', 'us')
    const { of, ms } = told.at(-1)!.data
    expect([told.at(-1)!.type, of]).toEqual(['call.recorded', 'call'])
    expect(ms!).toBeGreaterThanOrEqual(30)
    expect(ms!).toBeLessThanOrEqual(stopped - begun)
    const wave = new wavefile.WaveFile(exchange.soundOf(call.id)!)
    expect(wave.fmt).toMatchObject({ sampleRate: 8_000, numChannels: 1, bitsPerSample: 8 })
    expect(exchange.soundOf('nothing')).toBeNull()
  })

  it('records nothing of a call that nobody wanted recorded, or that nobody answered', async () => {
    const { exchange, told } = open()
    await exchange.setManner(PHONE, 'by-hand')
    const [talked, missed] = [await exchange.dial('a', LINE, PHONE), await exchange.dial('b', LINE, '+18085550143', { record: true })]
    await exchange.answer(talked, 'person')
    await exchange.end(talked, 'hung-up', 'us')
    await exchange.end(missed, 'hung-up', 'us')
    expect(told.filter(({ type }) => type === 'call.recorded')).toEqual([])
  })

  it('takes a message of a call that rings, and of no other, and remembers it', async () => {
    const { exchange, told, where } = open(undefined, [], { patience: 5_000 })
    const call = await exchange.callFrom(PHONE, LINE)
    expect(await exchange.takeMessage(call)).toBe(true)
    expect([await exchange.takeMessage(call), await exchange.answer(call, 'person'), await exchange.turn(call, 'hold', true)]).toEqual([
      false,
      false,
      false,
    ])
    await pause(20)
    await exchange.end(call, 'hung-up', 'them')
    expect(told.map(({ type, data }) => [type, data.by ?? data.of ?? data.why])).toEqual([
      ['call.incoming', undefined],
      ['call.answered', 'machine'],
      ['call.ended', 'hung-up'],
      ['call.recorded', 'message'],
    ])
    const again = open(where).exchange
    expect(again.soundOf(call.id)!.equals(exchange.soundOf(call.id)!)).toBe(true)
  })

  it('cuts calls that were on when it stopped, and remembers how telephones take calls', async () => {
    const { exchange, where } = open()
    await exchange.setManner(PHONE, 'by-hand')
    const call = await exchange.dial('a', LINE, PHONE)
    await exchange.answer(call, 'person')
    const after = open(where)
    await after.exchange.resume()
    expect(await ended(after.told)).toEqual(['ended network network'])
    expect(after.exchange.mannerOf(PHONE)).toBe('by-hand')
    expect((await after.exchange.dial('a', LINE, PHONE)).id).toBe(call.id)
  })

  it('has telephones of every kind, each the same every time', () => {
    const manners = Array.from({ length: 400 }, (_, n) => mannerOf(`+1808555${String(n).padStart(4, '0')}`))
    expect(new Set(manners)).toEqual(new Set(['picks-up', 'mailbox', 'lets-it-ring', 'busy']))
    expect(manners.filter(one => one === 'picks-up').length / 400).toBeGreaterThan(0.4)
    expect(mannerOf(PHONE)).toBe(mannerOf(PHONE))
  })

  it('rings our own telephones first, and calls the other one when one of them is picked up', async () => {
    const { exchange, told } = open()
    const [desk, mobile] = ['+15035550150', '+15035550151']
    for (const phone of [PHONE, desk, mobile]) await exchange.setManner(phone, 'by-hand')
    const call = await exchange.dial('a', LINE, PHONE, { own: [desk, mobile], desk: 'ada' })
    while (!told.some(({ type }) => type === 'call.own-ringing')) await pause(2)
    expect([exchange.onPhone(desk), exchange.onPhone(mobile), exchange.onPhone(PHONE)]).toEqual([call, call, null])
    expect([await exchange.declineOwn(call, desk), exchange.onPhone(desk), call.state]).toEqual([true, null, 'own-ringing'])
    expect([await exchange.pickUpOwn(call, PHONE), await exchange.pickUpOwn(call, mobile), await exchange.pickUpOwn(call, mobile)]).toEqual(
      [false, true, false],
    )
    while (!told.some(({ type }) => type === 'call.ringing')) await pause(2)
    expect([exchange.onPhone(mobile), exchange.onPhone(PHONE)]).toEqual([call, call])
    await exchange.answer(call, 'person')
    await exchange.end(call, 'hung-up', 'us')
    expect(await ended(told)).toEqual(['own-ringing', 'own-answered', 'ringing', 'answered person', 'ended hung-up us'])
  })

  it('gives up where nobody picks up a telephone of ours', async () => {
    const { exchange, told } = open()
    await exchange.setManner('+15035550150', 'lets-it-ring')
    await exchange.dial('a', LINE, PHONE, { own: ['+15035550150'] })
    expect(await ended(told)).toEqual(['own-ringing', 'ended own-no-answer us'])
    const call = await exchange.dial('b', LINE, PHONE, { own: ['+15035550150'] })
    expect([await exchange.declineOwn(call, '+15035550150'), call.state]).toEqual([true, 'ended'])
  })

  it('sends tones, seats our people, and only while one talks', async () => {
    const { exchange } = open()
    await exchange.setManner(PHONE, 'by-hand')
    const call = await exchange.dial('a', LINE, PHONE, { desk: 'ada' })
    expect([exchange.sendTones(call, '1'), exchange.seat(call, 'mika', true)]).toEqual([false, false])
    await exchange.answer(call, 'person')
    expect([
      exchange.sendTones(call, '12'),
      exchange.sendTones(call, '#'),
      exchange.seat(call, 'mika', true),
      exchange.seat(call, 'ada', false),
    ]).toEqual([true, true, true, true])
    expect([call.tones, call.desks]).toEqual(['12#', ['mika']])
  })

  it('leaves a message that was spoken before, and hangs up when all of it is said; whoever hangs up before cuts it off', async () => {
    const { exchange, told } = open()
    // neither takes the call by itself, however long this waits
    for (const phone of [PHONE, '+18085550143']) await exchange.setManner(phone, 'by-hand')
    const sound = madeUpSound('hello', 1_500, 1)
    const [whole, cut] = [await exchange.dial('a', LINE, PHONE), await exchange.dial('b', LINE, '+18085550143')]
    expect(await exchange.leave(whole, sound)).toBe(false)
    for (const call of [whole, cut]) await exchange.answer(call, 'machine')
    expect(await exchange.leave(whole, Buffer.from('no sound at all'))).toBe(false)
    for (const call of [whole, cut]) expect(await exchange.leave(call, sound)).toBe(true)
    await exchange.end(cut, 'hung-up', 'them')
    await ended(told, 2)
    const of = (call: { id: string }) =>
      told
        .filter(({ data }) => data.id === call.id)
        .map(({ type }) => type.slice(5))
        .filter(type => type !== 'ringing')
    expect(of(whole)).toEqual(['answered', 'leaving', 'left', 'ended'])
    expect(of(cut)).toEqual(['answered', 'leaving', 'ended'])
  })
})
