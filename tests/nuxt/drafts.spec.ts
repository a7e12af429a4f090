import { asked, away, before, browserKeeps } from '../support/app'
import { nextTick } from 'vue'
import { useDrafts } from '~/stores/drafts'

const KEY = 'record r1'
const saves = () => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body as { key: string, text: string, ref: string })
const soon = () => new Promise(resolve => setTimeout(resolve, 700))
const server = { 'PUT /api/drafts': () => null, 'GET /api/drafts': () => [] as unknown[] }
/** What the browser has written down for after a reload. */
const written = async () => {
  await nextTick()
  return JSON.parse(browserKeeps.getItem('plauder-drafts-nobody') ?? '{}') as Record<string, { text: string }>
}

beforeEach(() => browserKeeps.removeItem('plauder-drafts-nobody'))

describe('what is written and not sent', () => {
  it('has a reference of its own that stays the same until it is sent, and another one then', async () => {
    before(server)
    const drafts = useDrafts()
    const first = drafts.of(KEY).ref
    drafts.keep(KEY, { text: 'Hi' })
    expect(drafts.of(KEY)).toMatchObject({ text: 'Hi', ref: first })
    drafts.drop(KEY)
    expect(drafts.of(KEY)).toMatchObject({ text: '' })
    expect(drafts.of(KEY).ref).not.toBe(first)
    await soon()
  })

  it('lies in this browser at once, and on the server a moment later, as it was written last', async () => {
    before(server)
    const drafts = useDrafts()
    for (const text of ['H', 'Hi', 'Hi Iris']) drafts.keep(KEY, { text })
    expect((await written())[KEY]).toMatchObject({ text: 'Hi Iris' })
    expect(saves()).toEqual([])
    await soon()
    expect(saves().map(({ text }) => text)).toEqual(['Hi Iris'])
  })

  it('survives a server that is away, and goes there with the next word', async () => {
    before({ 'PUT /api/drafts': away })
    const drafts = useDrafts()
    drafts.keep(KEY, { text: 'Kept' })
    await soon()
    expect((await written())[KEY]).toMatchObject({ text: 'Kept' })
    drafts.keep('record r2', { text: 'Other' })
    await soon()
    expect(new Set(saves().map(({ key }) => key))).toEqual(new Set([KEY, 'record r2']))
  })

  it('is none any more when all of it was taken out, but for a picture', async () => {
    before(server)
    const drafts = useDrafts()
    drafts.keep(KEY, { text: 'Hi' })
    drafts.keep(KEY, { text: '' })
    expect(Object.keys(drafts.kept)).toEqual([])
    drafts.keep(KEY, { pictureIds: ['p1'] })
    expect(Object.keys(drafts.kept)).toEqual([KEY])
    await soon()
  })

  it('is taken up from another machine where that is later, and not where this one is', async () => {
    const there = (text: string, at: number) => ({
      key: KEY,
      text,
      at,
      ref: 'ABCD1234',
      templateId: null,
      templateVersion: null,
      pictureIds: [],
      recordId: 'r1',
      name: 'Iris',
    })
    before({ ...server, 'GET /api/drafts': () => [there('Earlier there', 1)] })
    const drafts = useDrafts()
    drafts.keep(KEY, { text: 'Here' })
    await soon()
    await drafts.load()
    expect(drafts.of(KEY).text).toBe('Here')
    before({ ...server, 'GET /api/drafts': () => [there('Later there', Date.now() + 60_000)] })
    const others = useDrafts()
    await others.load()
    expect(others.of(KEY)).toMatchObject({ text: 'Later there', ref: 'ABCD1234' })
  })
})
