import { askedFor, before, refuse, wentTo } from '../support/app'
import type { Knock } from '~~/shared/knocks'
import { useKnocks } from '~/stores/knocks'
import { useShelf } from '~/stores/shelf'
import { KNOCK_WORDS, knocker, sayKnock } from '~/words/knocks'

const knock = (more: object = {}): Knock => ({
  id: 'k1', kind: 'question', at: 0, times: 1, words: 'Is it free?', step: 'owner', seen: false, state: 'open', takenBy: null, endedAt: null,
  record: { id: 'r1', name: 'Iris Holm', module: 'lead' }, conversationId: 'c1', taskId: null, waitsSince: 0, assignee: null,
  line: 'Portland line', remote: '+18085550142', phoneId: 'p1', ...more,
})

describe('what knocks', () => {
  it('is taken first, and then its conversation opens over the page', async () => {
    before({ 'GET /api/knocks': () => ({ knocks: [] }), 'POST /api/knocks/k1/take': () => ({}) })
    await useKnocks().take(knock())
    expect(askedFor()).toEqual(['POST /api/knocks/k1/take', 'GET /api/knocks'])
    expect(useShelf().openId).toBe('c1')
  })

  it('opens in the inbox where its conversation lies there already', async () => {
    before({ 'GET /api/knocks': () => ({ knocks: [] }), 'POST /api/knocks/k1/take': () => ({}) })
    useShelf().conversationsOnPage = ['c1']
    await useKnocks().take(knock())
    expect([useShelf().openId, wentTo.at(-1)]).toEqual([null, { path: '/inbox', query: { with: 'c1', answer: '1' } }])
  })

  it('is called back where somebody has called', async () => {
    before({
      'GET /api/knocks': () => ({ knocks: [] }), 'POST /api/knocks/k1/take': () => ({}), 'POST /api/calls': () => ({ id: 'call', calls: [], now: 0 }),
    })
    await useKnocks().take(knock({ kind: 'second-missed-call' }))
    expect(askedFor().at(-1)).toBe('POST /api/calls')
    expect(useShelf().openId).toBeNull()
  })

  it('is taken once, however often its key is pressed', async () => {
    before({
      'GET /api/knocks': () => ({ knocks: [] }), 'POST /api/knocks/k1/take': () => ({}), 'POST /api/calls': () => ({ id: 'call', calls: [], now: 0 }),
    })
    const knocks = useKnocks()
    await Promise.all([knocks.take(knock({ kind: 'second-missed-call' })), knocks.take(knock({ kind: 'second-missed-call' }))])
    expect(askedFor()).toEqual(['POST /api/knocks/k1/take', 'GET /api/knocks', 'POST /api/calls'])
  })

  it('says nothing of what could not be marked as seen', async () => {
    before({ 'POST /api/knocks/seen': () => refuse(503, 'away', 'Away.') })
    const knocks = useKnocks()
    await knocks.see()
    expect([knocks.problem, knocks.all]).toEqual(['', []])
  })

  it('opens nothing when a colleague was quicker, and says by whom', async () => {
    before({
      'GET /api/knocks': () => ({ knocks: [knock({ state: 'taken', takenBy: { id: 'm', firstName: 'Mika' } })] }),
      'POST /api/knocks/k1/take': () => refuse(409, 'taken', 'Mika has taken it already.'),
    })
    const knocks = useKnocks()
    await knocks.take(knock())
    expect([useShelf().openId, knocks.problem, knocks.newest]).toEqual([null, 'Mika has taken it already.', null])
  })
})

describe('how it is said', () => {
  it.each([
    [knock(), 'asks: Is it free?'],
    [knock({ times: 3 }), 'has written 3 times: Is it free?'],
    [knock({ step: 'stand-in' }), 'asks: Is it free? (nobody has taken it yet)'],
    [knock({ kind: 'second-missed-call' }), 'has called twice, and nobody answered'],
    [knock({ kind: 'second-missed-call', times: 2 }), 'has called 3 times, and nobody answered'],
    [knock({ kind: 'hot-answer', words: '' }), 'answers for the first time: a picture'],
    [knock({ kind: 'call-back-due', words: 'About the trike' }), 'is to be called back now: About the trike'],
    [knock({ kind: 'waits-too-long', step: 'lead' }), 'waits 35 min, with nobody'],
    [knock({ kind: 'waits-too-long', step: 'lead', assignee: 'Mika' }), 'waits 35 min, with Mika'],
  ])('%#', (one, said) => expect(sayKnock(one, 35 * 60_000)).toBe(said))

  it('names whoever is on no record by their number', () => {
    expect([knocker(knock()), knocker(knock({ record: null })), knocker(knock({ record: null, remote: null }))])
      .toEqual(['Iris Holm', '+1 808 555 0142', 'Somebody'])
    expect(KNOCK_WORDS.question.act).toBe('answer')
  })
})
