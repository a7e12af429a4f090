import { asked, before, refuse, settled, wentTo } from '../support/app'
import { useTold } from '~/composables/told'
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
const came = { kind: 'conversation', conversationId: 'c1', incoming: true } as const

describe('what came in', () => {
  it('is told by name, and leads to the conversation, ready to answer', async () => {
    told({ 'GET /api/conversations/c1': () => conversation() }).tell(came)
    await settled()
    expect(shown).toMatchObject([{ title: 'Iris Holm waits for an answer', body: 'Portland line' }])
    shown[0]!.click()
    expect(wentTo.at(-1)).toEqual({ path: '/inbox', query: { with: 'c1', answer: '1' } })
  })

  it.each([
    ['what a colleague has', conversation({ assignee: { id: 'm', firstName: 'Mika' } })],
    ['what needs no answer, such as STOP', conversation({ waitsSince: null })],
  ])('is not told of %s', async (_, found) => {
    told({ 'GET /api/conversations/c1': () => found }).tell(came)
    await settled()
    expect(shown).toEqual([])
  })

  it('is told without a name where it cannot be read, and to whoever wants it', async () => {
    told({ 'GET /api/conversations/c1': () => refuse(500, 'broken', 'It broke.') }).tell(came)
    await settled()
    expect(shown).toMatchObject([{ title: 'Somebody waits for an answer' }])
    told({ 'GET /api/conversations/c1': () => conversation() }, false).tell(came)
    await settled()
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
    await settled()
    expect(shown).toHaveLength(1)
  })

  it('is one notification for many, after a long time away', async () => {
    const notices = Array.from({ length: 9 }, (_, i) => ({ conversationId: `c${i}`, waits: true }))
    await told({ 'GET /api/inbox/notices': () => ({ notices, more: false }) }).catchUp()
    await settled()
    expect(shown).toMatchObject([{ title: '9 conversations wait for an answer' }])
    shown[0]!.click()
    expect(wentTo.at(-1)).toBe('/inbox')
  })
})
