import { asked, askedFor, before, away, refuse } from '../support/app'
import { newCall } from '~~/core/call/facts'
import type { CallDetail } from '~~/shared/calling'
import { useCalls } from '~/stores/calls'
import { useShelf } from '~/stores/shelf'

const NOW = Date.parse('2026-11-25T18:00:00Z')
const talking = { ...newCall(NOW), answeredAt: NOW + 1_000, answeredBy: 'person' as const }
const call = (values: Partial<CallDetail> = {}): CallDetail => ({
  id: 'c1',
  activityId: 'a1',
  alsoOf: [],
  direction: 'out',
  remote: '+18085550142',
  line: { id: 'l1', name: 'Portland line', ringSound: 'quick' },
  record: null,
  facts: talking,
  mine: true,
  roundId: null,
  notes: '',
  othersNotes: [],
  recording: null,
  disposition: null,
  rating: null,
  transfer: null,
  spoken: null,
  zones: [],
  lastSaid: null,
  ...values,
})
const rings = (values: Partial<CallDetail> = {}) =>
  call({ id: 'in', direction: 'in', mine: false, facts: { ...newCall(NOW), ringingAt: NOW }, ...values })
const shelf = (...calls: CallDetail[]) => ({ 'GET /api/calls': () => ({ calls, now: Date.now() + 5_000 }) })
const dialled = { id: 'c1', calls: [call()], now: Date.now() }
const transfer = (values: object) => ({
  id: 'h1',
  way: 'blind' as const,
  state: 'asked' as const,
  from: { id: 'a', firstName: 'Ada' },
  to: { id: 'm', firstName: 'Mika' },
  toMe: true,
  ...values,
})

describe('the calls on my shelf', () => {
  it('know which one I am on and which ring for me, by the clock of the server', async () => {
    before(shelf(call(), rings(), call({ id: 'over', facts: { ...talking, endedAt: NOW + 9_000, end: { why: 'hung-up', side: 'them' } } })))
    const calls = useCalls()
    await calls.load()
    expect([calls.on?.id, calls.ringing.map(({ id }) => id)]).toEqual(['c1', ['in']])
    expect(Math.round(calls.skew / 1_000)).toBe(5)
  })

  it('stay as they are while the server cannot be reached', async () => {
    before(shelf(call()))
    const calls = useCalls()
    await calls.load()
    before({ 'GET /api/calls': away })
    await calls.load()
    expect(calls.calls).toHaveLength(1)
  })

  it('let me go as soon as a message is being left', async () => {
    before(shelf(call({ facts: { ...talking, answeredBy: 'machine', leavingAt: NOW + 2_000 } })))
    const calls = useCalls()
    await calls.load()
    expect(calls.on).toBeNull()
  })

  it.each([
    ['one from outside by answering it', rings(), 'POST /api/calls/in/order', { order: 'answer' }],
    [
      'one that is handed to me by taking it',
      call({ id: 'in', mine: false, transfer: transfer({}) }),
      'POST /api/calls/in/transfer/step',
      { step: 'take' },
    ],
  ])('are taken, %s', async (_, ringing, path, body) => {
    before({ ...shelf(ringing), [path]: () => null })
    const calls = useCalls()
    await calls.load()
    expect(calls.ringing).toHaveLength(1)
    await calls.answer(calls.ringing[0]!)
    expect(asked.find(one => `${one.method} ${one.path}` === path)?.body).toEqual(body)
    expect(calls.openId).toBe('in')
  })

  it('do not ring for me while I hand one on, nor once it is taken', () => {
    before({})
    const calls = useCalls()
    expect([
      calls.rings(call({ transfer: transfer({ toMe: false }) })),
      calls.rings(call({ mine: false, transfer: transfer({ state: 'together' }) })),
    ]).toEqual([false, false])
  })
})

describe('calling somebody', () => {
  it('opens the call that was made', async () => {
    before({ 'POST /api/calls': () => dialled })
    const calls = useCalls()
    calls.dialling = true
    await calls.dial({ number: '808 555 0142', name: 'Iris' })
    expect(asked[0]!.body).toMatchObject({ number: '808 555 0142', nightAllowed: false })
    expect([calls.opened?.remote, calls.dialling, calls.busy]).toEqual(['+18085550142', false, false])
  })

  it('asks at night, and calls all the same when that is said', async () => {
    before({
      'POST /api/calls': ({ body }) =>
        (body as { nightAllowed: boolean }).nightAllowed ? dialled : refuse(409, 'night', 'It is outside of the hours.', { zones: [] }),
    })
    const calls = useCalls()
    await calls.dial({ phoneId: 'p1', name: 'Iris' })
    expect([calls.night?.question.detail, calls.openId, calls.problem]).toEqual(['It is outside of the hours.', null, ''])
    await calls.dial(calls.night!.asked, true)
    expect([calls.night, calls.openId]).toEqual([null, 'c1'])
  })

  it('says why not, at the field where there is one, and is free for the next', async () => {
    before({
      'POST /api/calls': () =>
        refuse(422, 'bad-input', 'Look at the marked fields.', { fields: { number: 'This cannot be a telephone number.' } }),
    })
    const calls = useCalls()
    await calls.dial({ number: '911', name: '911' })
    expect([calls.problem, calls.busy, calls.openId]).toEqual(['This cannot be a telephone number.', false, null])
    before({ 'POST /api/calls': away })
    const others = useCalls()
    await others.dial({ number: '808 555 0142', name: 'Iris' })
    expect(others.problem).toMatch(/cannot be reached/)
  })
})

describe('what is done with a call', () => {
  it.each([
    ['handed', (calls: ReturnType<typeof useCalls>) => calls.transfer(call(), 'm', 'attended'), 'POST /api/calls/c1/transfer'],
    ['left a message', (calls: ReturnType<typeof useCalls>) => calls.leave(call(), 's1'), 'POST /api/calls/c1/leave'],
  ])('closes what was open beside it once it is %s, and looks how it stands', async (_, act, path) => {
    before({ ...shelf(call()), [path]: () => null })
    const calls = useCalls()
    calls.way = 'transfer'
    await act(calls)
    expect([calls.way, askedFor()]).toEqual([null, [path, 'GET /api/calls']])
  })

  it('stays open where it cannot be, with the reason', async () => {
    before({ 'POST /api/calls/c1/transfer': () => refuse(409, 'not-now', 'Not now.') })
    const calls = useCalls()
    calls.way = 'transfer'
    await calls.transfer(call(), 'm', 'blind')
    expect([calls.way, calls.problem]).toEqual(['transfer', 'Not now.'])
  })

  it('is declined with a text, whose conversation opens', async () => {
    before({ ...shelf(), 'POST /api/calls/in/decline-with-text': () => ({ conversationId: 'v1' }) })
    await useCalls().declineWithText(rings())
    expect(useShelf().openId).toBe('v1')
  })

  it('is put away, and opened again when its disposition is taken back', async () => {
    before({
      ...shelf(),
      'POST /api/calls/c1/put-away': () => null,
      'POST /api/calls/c1/disposition/take-back': () => ({ name: '', effects: [] }),
    })
    const calls = useCalls()
    calls.openId = 'c1'
    await calls.putAway(call())
    expect(calls.openId).toBeNull()
    await calls.takeBack(call())
    expect(calls.openId).toBe('c1')
  })
})
