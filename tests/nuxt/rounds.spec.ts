import { asked, askedFor, before, refuse, settled, wentTo } from '../support/app'
import type { MyRound } from '~~/shared/rounds'
import { useCalls } from '~/stores/calls'
import { useRounds } from '~/stores/rounds'

const iris = { recordId: 'r1', name: 'Iris Holm', firstName: 'Iris', phoneId: 'p1', number: '+18085550142' }
const round = (values: Partial<MyRound> = {}): MyRound => ({ id: 'w1', name: 'Spring', state: 'open', pauseSeconds: null, inHand: iris, nextAt: null, counts: { waiting: 3, held: 1, called: 0, passed: 0, skipped: 0 }, ...values })
const calls = { 'GET /api/calls': () => ({ calls: [], now: Date.now() }), 'POST /api/calls': () => ({ id: 'c1' }) }
const dialled = () => asked.filter(({ path, method }) => method === 'POST' && path === '/api/calls').map(({ body }) => (body as { phoneId: string }).phoneId)
afterEach(() => useRounds().wait())

describe('the round I am on', () => {
  it('brings the next person’s page, and waits for a key where no pause is set', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round() })
    const rounds = useRounds()
    await rounds.next('w1')
    await settled()
    expect([rounds.mine?.inHand?.name, wentTo, dialled(), rounds.dialsAt]).toEqual(['Iris Holm', ['/record/r1'], [], null])
    await rounds.dial()
    expect(dialled()).toEqual(['p1'])
  })

  it('dials at once where it is set so', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    await useRounds().next('w1')
    await settled()
    expect(dialled()).toEqual(['p1'])
  })

  it('dials by itself after a pause, unless somebody wants to read first', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0.03 }) })
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
    before({ ...calls, 'POST /api/rounds/w1/next': () => round({ inHand: null }) })
    await useRounds().next('w1')
    expect(wentTo).toEqual([])
    before({})
    await useRounds().next()
    expect(askedFor()).toEqual([])
  })

  it('dials nobody while I am on a call', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0 }) })
    useCalls().calls = [{ id: 'c0', mine: true, facts: { endedAt: null, answeredAt: 1, answeredBy: 'person', switches: [], leavingAt: null } }] as never
    await useRounds().next('w1')
    await settled()
    expect(dialled()).toEqual([])
  })

  it('says of somebody what is said, and brings the next; what cannot be said leaves the round as the server has it', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round(), 'POST /api/rounds/w1/people/r1': () => null })
    const rounds = useRounds()
    await rounds.next('w1')
    await rounds.say('skip')
    expect(askedFor()).toEqual(['POST /api/rounds/w1/next', 'POST /api/rounds/w1/people/r1', 'POST /api/rounds/w1/next'])
    before({ ...calls, 'POST /api/rounds/w1/next': () => round(), 'POST /api/rounds/w1/people/r1': () => refuse(409, 'not-in-hand', 'You do not have this person in hand any more.'), 'GET /api/rounds/mine': () => ({ round: null }) })
    const others = useRounds()
    await others.next('w1')
    await others.say('later')
    expect([others.problem, others.mine]).toEqual(['You do not have this person in hand any more.', null])
  })

  it('asks for the next while it is still being said how it went, and goes on once that is said', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round() })
    const rounds = useRounds()
    await rounds.next('w1')
    let say: (ok: boolean) => void = () => undefined
    const gone = rounds.nextAfter(new Promise(resolve => say = resolve))
    await settled()
    expect([askedFor().filter(path => path.endsWith('/next')).length, wentTo.length]).toEqual([2, 1])
    say(true)
    expect(await gone).toBe(true)
    expect(wentTo).toHaveLength(2)
  })

  it('stays where it cannot be said yet, with whoever was handed out in hand for later', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round() })
    const rounds = useRounds()
    rounds.mine = round({ inHand: null })
    expect(await rounds.nextAfter(Promise.resolve(false))).toBe(false)
    await settled()
    expect([wentTo, rounds.mine?.inHand?.name]).toEqual([[], 'Iris Holm'])
  })

  it('is left, and nothing is dialled behind me', async () => {
    before({ ...calls, 'POST /api/rounds/w1/next': () => round({ pauseSeconds: 0.03 }), 'POST /api/rounds/w1/leave': () => null })
    const rounds = useRounds()
    await rounds.next('w1')
    await rounds.leave()
    await new Promise(resolve => setTimeout(resolve, 60))
    expect([rounds.mine, dialled()]).toEqual([null, []])
  })
})
