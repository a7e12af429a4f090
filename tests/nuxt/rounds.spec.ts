import { asked, askedFor, before, held, refuse, settled, wentTo } from '../support/app'
import type { CallDetail } from '~~/shared/calling'
import type { MyRound } from '~~/shared/rounds'
import { useAhead } from '~/stores/ahead'
import { useCalls } from '~/stores/calls'
import { useRounds } from '~/stores/rounds'

const iris = { recordId: 'r1', name: 'Iris Holm', firstName: 'Iris', phoneId: 'p1', number: '+18085550142' }
const round = (values: Partial<MyRound> = {}): MyRound => ({
  id: 'w1',
  name: 'Spring',
  state: 'open',
  pauseSeconds: null,
  inHand: iris,
  nextAt: null,
  counts: { waiting: 3, held: 1, called: 0, passed: 0, skipped: 0 },
  ...values,
})
const calls = {
  'GET /api/calls': () => ({ calls: [], now: Date.now() }),
  'POST /api/calls': () => ({ id: 'c1', calls: [], now: Date.now() }),
}
const page = {
  'GET /api/records/r1': () => ({ name: 'Iris Holm' }),
  'GET /api/records/r1/composer': () => ({}),
  'GET /api/records/r1/timeline': () => ({ entries: [], more: false, newer: false }),
}
const on = {
  id: 'c0',
  mine: true,
  roundId: 'w1',
  facts: { endedAt: null, answeredAt: 1, answeredBy: 'person', switches: [], leavingAt: null },
} as unknown as CallDetail
const over = { ...on, id: 'c9', facts: { ...on.facts, endedAt: 2 } } as CallDetail
const dialled = () =>
  asked.filter(({ path, method }) => method === 'POST' && path === '/api/calls').map(({ body }) => (body as { phoneId: string }).phoneId)
afterEach(() => useRounds().wait())

describe('the round I am on', () => {
  it('brings the next person’s page, and waits for a key where no pause is set', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round() })
    const rounds = useRounds()
    await rounds.next('w1')
    await settled()
    expect([rounds.mine?.inHand?.name, wentTo, dialled(), rounds.dialsAt]).toEqual(['Iris Holm', ['/record/r1'], [], null])
    await rounds.dial()
    expect(dialled()).toEqual(['p1'])
  })

  it('dials at once where it is set so', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    await useRounds().next('w1')
    await settled()
    expect(dialled()).toEqual(['p1'])
  })

  it('dials by itself after a pause, unless somebody wants to read first', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0.03 }) })
    const rounds = useRounds()
    await rounds.next('w1')
    expect(rounds.dialsAt).not.toBeNull()
    rounds.wait()
    await new Promise(resolve => setTimeout(resolve, 60))
    expect([dialled(), rounds.dialsAt]).toEqual([[], null])
    await rounds.next('w1')
    await new Promise(resolve => setTimeout(resolve, 60))
    expect(dialled()).toEqual(['p1'])
  })

  it('goes nowhere when nobody is left, nor without a round', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ inHand: null }) })
    await useRounds().next('w1')
    expect(wentTo).toEqual([])
    before({})
    await useRounds().next()
    expect(askedFor()).toEqual([])
  })

  it('dials nobody while I am on a call', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    useCalls().calls = [on]
    await useRounds().next('w1')
    await settled()
    expect(dialled()).toEqual([])
  })

  it('says of somebody what is said, and brings the next; what cannot be said leaves the round as the server has it', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round(), 'POST /api/rounds/w1/people/r1': () => null })
    const rounds = useRounds()
    await rounds.next('w1')
    await rounds.say('skip')
    expect(askedFor().filter(path => path.startsWith('POST'))).toEqual([
      'POST /api/rounds/w1/next',
      'POST /api/rounds/w1/people/r1',
      'POST /api/rounds/w1/next',
    ])
    before({
      ...calls,
      ...page,
      'POST /api/rounds/w1/next': () => round(),
      'POST /api/rounds/w1/people/r1': () => refuse(409, 'not-in-hand', 'You do not have this person in hand any more.'),
      'GET /api/rounds/mine': () => ({ round: null }),
    })
    const others = useRounds()
    await others.next('w1')
    await others.say('later')
    expect([others.problem, others.mine]).toEqual(['You do not have this person in hand any more.', null])
  })

  it('has the next in hand, and their page loaded, while it is still to be said how it went', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    const rounds = useRounds()
    rounds.mine = round({ inHand: null })
    useCalls().calls = [over]
    await settled()
    expect([wentTo, dialled(), rounds.mine?.inHand?.name]).toEqual([[], [], 'Iris Holm'])
    const said = held<boolean>()
    const gone = rounds.nextAfter(said.answer)
    await settled()
    expect([wentTo, dialled()]).toEqual([[], []])
    said.give(true)
    await gone
    expect([wentTo, dialled()]).toEqual([['/record/r1'], ['p1']])
    const ahead = useAhead().take('r1')
    expect([(await ahead!.record).name, askedFor().filter(path => path === 'GET /api/records/r1').length]).toEqual(['Iris Holm', 1])
  })

  it('has nobody in hand ahead while a call is on, nor in a round that is paused', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round() })
    const rounds = useRounds()
    rounds.mine = round({ inHand: null })
    useCalls().calls = [over, on]
    await settled()
    rounds.mine = round({ inHand: null, state: 'paused' })
    useCalls().calls = [over]
    await settled()
    expect(askedFor()).toEqual([])
  })

  it('stays where it cannot be said yet, with whoever is in hand', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    const rounds = useRounds()
    rounds.mine = round()
    await rounds.nextAfter(Promise.resolve(false))
    await settled()
    expect([wentTo, dialled(), rounds.mine?.inHand?.name]).toEqual([[], [], 'Iris Holm'])
  })

  it('goes nowhere once it is left while it was still being said how it went', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/leave': () => null })
    const rounds = useRounds()
    rounds.mine = round({ pauseSeconds: 0 })
    const said = held<boolean>()
    const gone = rounds.nextAfter(said.answer)
    await rounds.leave()
    said.give(true)
    await gone
    expect([wentTo, dialled()]).toEqual([[], []])
  })

  it('calls nobody whom a colleague has in hand by now, and shows the round as it is', async () => {
    before({
      ...calls,
      ...page,
      'POST /api/calls': () => refuse(409, 'not-in-hand', 'You do not have this person in hand any more.'),
      'GET /api/rounds/mine': () => ({ round: round({ inHand: null }) }),
    })
    const rounds = useRounds()
    rounds.mine = round()
    await rounds.dial()
    expect([asked.find(({ method }) => method === 'POST')?.body, useCalls().problem, rounds.mine?.inHand]).toEqual([
      expect.objectContaining({ phoneId: 'p1', roundId: 'w1' }),
      'You do not have this person in hand any more.',
      null,
    ])
  })

  it('is not put back to what was read before it was left', async () => {
    const stale = held<object>()
    let reads = 0
    before({
      ...calls,
      ...page,
      'POST /api/rounds/w1/leave': () => null,
      'GET /api/rounds/mine': () => (reads++ === 0 ? stale.answer : { round: null }),
    })
    const rounds = useRounds()
    rounds.mine = round()
    const reading = rounds.load()
    await rounds.leave()
    stale.give({ round: round() })
    await reading
    expect([rounds.mine, reads]).toEqual([null, 2])
  })

  it('is left, and nothing is dialled behind me', async () => {
    before({ ...calls, ...page, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0.03 }), 'POST /api/rounds/w1/leave': () => null })
    const rounds = useRounds()
    await rounds.next('w1')
    await rounds.leave()
    await new Promise(resolve => setTimeout(resolve, 60))
    expect([rounds.mine, dialled()]).toEqual([null, []])
  })
})
