import { asked, before, refuse, wentTo } from '../support/app'
import { useTold } from '~/composables/told'
import type { Knock } from '~~/shared/knocks'
import { useMe, type Me } from '~/stores/me'

interface Shown { title: string, body?: string, click: () => void }
let shown: Shown[]

/** A browser that allows notifications, and another window in front. */
beforeEach(() => {
  shown = []
  Object.assign(globalThis, {
    window: { focus: () => undefined },
    document: { hasFocus: () => false },
    Notification: class extends EventTarget {
      static permission = 'granted'
      constructor(title: string, { body }: NotificationOptions) {
        super()
        shown.push({ title, body, click: () => this.dispatchEvent(new Event('click')) })
      }

      close() {}
    },
  })
})

const conversation = (more: object = {}) =>
  ({ records: [{ name: 'Iris Holm' }], remote: '+18085550142', lineName: 'Portland line', waitsSince: 1, assignee: null, ...more })
function told(answers: Parameters<typeof before>[0], notifies = true) {
  before(answers)
  useMe().me = { id: 'a', told: { chimes: false, notifies } } as Me
  return useTold()
}
/** What comes in within a moment is told of together. */
const heard = () => new Promise(resolve => setTimeout(resolve, 250))
const came = { kind: 'conversation', conversationId: 'c1', incoming: true } as const

describe('what came in', () => {
  it('is told by name, and leads to the conversation, ready to answer', async () => {
    told({ 'GET /api/conversations/c1': () => conversation() }).tell(came)
    await heard()
    expect(shown).toMatchObject([{ title: 'Iris Holm waits for an answer', body: 'Portland line' }])
    shown[0]!.click()
    expect(wentTo.at(-1)).toEqual({ path: '/inbox', query: { with: 'c1', answer: '1' } })
  })

  it.each([
    ['what a colleague has', conversation({ assignee: { id: 'm', firstName: 'Mika' } })],
    ['what needs no answer, such as STOP', conversation({ waitsSince: null })],
  ])('is not told of %s', async (_, found) => {
    told({ 'GET /api/conversations/c1': () => found }).tell(came)
    await heard()
    expect(shown).toEqual([])
  })

  it('is told without a name where it cannot be read, and to whoever wants it', async () => {
    told({ 'GET /api/conversations/c1': () => refuse(500, 'broken', 'It broke.') }).tell(came)
    await heard()
    expect(shown).toMatchObject([{ title: 'Somebody waits for an answer' }])
    told({ 'GET /api/conversations/c1': () => conversation() }, false).tell(came)
    await heard()
    expect([shown.length, asked.length]).toEqual([1, 0])
  })

  it('while the connection was broken is told when it is there again, each conversation once', async () => {
    let reachable = false
    const { catchUp } = told({
      'GET /api/inbox/notices': () => reachable ? { notices: [{ conversationId: 'c1', waits: true }, { conversationId: 'c1', waits: true }, { conversationId: 'c2', waits: false }], more: false } : refuse(503, 'away', 'Away.'),
      'GET /api/conversations/c1': () => conversation(),
    })
    await catchUp()
    expect(shown).toEqual([])
    reachable = true
    await catchUp()
    await heard()
    expect(shown).toHaveLength(1)
  })

  it('is one notification for many that come in at once, of those that I owe', async () => {
    const items = Array.from({ length: 5 }, (_, i) => ({ conversationId: `c${i}` }))
    const { tell } = told({ 'GET /api/shelf': () => ({ items, total: 5 }) })
    for (let i = 0; i < 9; i++) tell({ kind: 'conversation', conversationId: `c${i}`, incoming: true })
    await heard()
    expect(shown).toMatchObject([{ title: '5 conversations wait for an answer' }])
    // nothing was fetched of each
    expect(asked.map(({ path }) => path)).toEqual(['/api/shelf'])
  })

  it('that knocks says what it is, and leads to its conversation or its record', async () => {
    const knock = {
      id: 'k1', kind: 'question', step: 'owner', times: 1, words: 'Is it free?', at: 1, record: { id: 'r1', name: 'Iris Holm' },
      conversationId: 'c1', line: 'Portland line',
    } as Knock
    const { knocked } = told({})
    knocked([])
    expect(shown).toEqual([])
    knocked([knock])
    expect(shown).toMatchObject([{ title: 'Iris Holm asks: Is it free?', body: 'Portland line' }])
    shown[0]!.click()
    expect(wentTo.at(-1)).toEqual({ path: '/inbox', query: { with: 'c1', answer: '1' } })
    knocked([{ ...knock, kind: 'call-back-due', words: 'About the trike', conversationId: null, line: null }])
    shown[1]!.click()
    expect(wentTo.at(-1)).toBe('/record/r1')
  })

  it('is one notification for many, after a long time away', async () => {
    const notices = Array.from({ length: 9 }, (_, i) => ({ conversationId: `c${i}`, waits: true }))
    await told({ 'GET /api/inbox/notices': () => ({ notices, more: false }) }).catchUp()
    await heard()
    expect(shown).toMatchObject([{ title: '9 conversations wait for an answer' }])
    shown[0]!.click()
    expect(wentTo.at(-1)).toBe('/inbox')
  })
})
