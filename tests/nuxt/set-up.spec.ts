import { asked, askedFor, away, before, inPage, leave, refuse, settled, tell, wentTo } from '../support/app'
import { ref } from 'vue'
import { api } from '~/composables/api'
import { startFrom } from '~/composables/new-record'
import { usePresence } from '~/composables/presence'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { takeTemplatesIn, templatesAsFile } from '~/composables/template-files'
import { rightsOf } from '~~/shared/permissions'
import { useMe, type Me } from '~/stores/me'
import { useShelf } from '~/stores/shelf'

const ada = { id: 'a', firstName: 'Ada', role: 'rep', format: { hours: 24, dayFirst: true } } as Me
const soon = () => new Promise(resolve => setTimeout(resolve, 450))

describe('who is signed in', () => {
  it('is asked of the server, and nobody where it knows nobody', async () => {
    before({ 'GET /api/me': () => ada })
    expect(await useMe().load()).toEqual(ada)
    before({ 'GET /api/me': () => refuse(401, 'signed-out', 'Sign in.') })
    expect([await useMe().load(), useMe().expired]).toEqual([null, false])
    before({ 'GET /api/me': away })
    await expect(useMe().load()).rejects.toThrow(/cannot be reached/)
  })

  it('signs in again over the page, which stays for the same one and is left for another', async () => {
    before({ 'GET /api/me': () => ada, 'POST /api/sign-in': () => null })
    const me = useMe()
    me.me = ada
    me.expired = true
    await me.signIn('ada@pannier.example', 'secret', '')
    expect([me.expired, wentTo]).toEqual([false, []])
    before({ 'GET /api/me': () => ({ ...ada, id: 'm' }), 'POST /api/sign-in': () => null })
    const other = useMe()
    other.me = ada
    await other.signIn('mika@pannier.example', 'secret', '')
    expect(wentTo).toEqual(['/'])
  })

  it('signs out to where one signs in', async () => {
    before({ 'POST /api/sign-out': () => null })
    await useMe().signOut()
    expect(wentTo).toEqual(['/sign-in'])
  })

  it.each([['rep', ['/', '/', '/']], ['lead', ['/', '/']], ['admin', []], ['helper', ['/', '/']]] as const)('goes into the rooms of Set-up as a %s may', (role, sentTo) => {
    before({})
    useMe().me = { ...ada, role, rights: rightsOf({ role }) }
    void onlyWith('people.edit')
    void onlyWith('disposition.edit')
    void onlyWith('line.edit')
    expect(wentTo).toEqual(sentTo)
  })
})

describe('a list of Set-up', () => {
  it('is what the server made of each change', async () => {
    before({
      'GET /api/things': () => ['one'],
      'POST /api/things': () => refuse(422, 'bad-input', 'Look at the marked fields.', { fields: { name: 'Give it a name.' } }),
    })
    const { list, trying, problem } = useSetUpList<string>(() => ({ path: '/api/things' }))
    await settled()
    await trying(async () => ['one', 'two'])
    expect([list.value, problem.value]).toEqual([['one', 'two'], ''])
    await trying(() => api<string[]>('/api/things', { method: 'POST', body: {} }))
    expect([list.value, problem.value]).toEqual([['one', 'two'], 'Give it a name.'])
  })

  it('is another one for another module', async () => {
    const module = ref('lead')
    before({ 'GET /api/things': ({ query }) => [(query as { module: string }).module] })
    const { list } = useSetUpList<string>(() => ({ path: '/api/things', query: { module: module.value } }))
    await settled()
    module.value = 'client'
    await settled()
    expect([list.value, asked.length]).toEqual([['client'], 2])
  })
})

describe('templates as a file', () => {
  it('hold what a template is made of, and nothing of whose it is', async () => {
    const blob = templatesAsFile([
      {
        id: 't',
        name: 'Offer',
        description: '',
        folder: '',
        modules: ['lead'],
        body: 'Hi',
        fillIns: [],
        owner: 'Ada',
        version: 3,
      } as never,
    ])
    expect(JSON.parse(await blob.text())).toEqual([
      { name: 'Offer', description: '', folder: '', modules: ['lead'], body: 'Hi', fillIns: [] },
    ])
  })

  it('are taken in one by one, each for oneself, and those that are refused are named', async () => {
    before({
      'POST /api/templates': ({ body }) =>
        (body as { name?: string }).name ? null : refuse(422, 'bad-input', 'Look.', { fields: { name: 'Give it a name.' } }),
    })
    const file = new Blob([JSON.stringify([{ name: 'Offer', audience: 'all', body: 'Hi' }, { body: 'Hi' }])]) as File
    expect(await takeTemplatesIn(file)).toEqual({ taken: 1, refused: [{ name: 'without a name', reason: 'Give it a name.' }] })
    expect(asked[0]!.body).toMatchObject({ name: 'Offer', audience: 'mine' })
  })

  it.each(['not json', '{"name":"Offer"}'])('are not %p', async (words) => {
    await expect(takeTemplatesIn(new Blob([words]) as File)).rejects.toThrow(/no file of templates/)
  })
})

describe('a record made from another one', () => {
  const detail = (values: object) => ({
    id: 'r1',
    name: 'Iris Holm',
    module: 'lead',
    company: { id: 'c1', name: 'Holm' },
    people: [{ id: 'p1', name: 'Joss' }],
    ...values,
  })
  it.each([
    ['a person', {}, { people: [{ id: 'r1', name: 'Iris Holm' }], company: { id: 'c1', name: 'Holm' } }],
    ['a company', { module: 'company', name: 'Holm', company: null }, { company: { id: 'r1', name: 'Holm' } }],
    [
      'a deal',
      { module: 'deal', name: 'Two bikes' },
      { company: { id: 'c1', name: 'Holm' }, people: [{ id: 'p1', name: 'Joss' }], about: { id: 'r1', name: 'Two bikes' } },
    ],
    [
      'an appointment',
      { module: 'appointment', name: 'Trial' },
      { company: { id: 'c1', name: 'Holm' }, people: [{ id: 'p1', name: 'Joss' }], about: null },
    ],
  ])('begins with whom it is for, from %s', async (_, values, start) => {
    before({ 'GET /api/records/r1': () => detail(values) })
    expect(await startFrom('r1')).toEqual(start)
  })
})

describe('who else is at a record', () => {
  const PATH = 'POST /api/records/r1/presence'
  const states = () => asked.map(({ body }) => (body as { state: string }).state)

  it('is told when one stays, writes and leaves, and not when one only passes by', async () => {
    before({ [PATH]: () => [{ colleagueId: 'm', firstName: 'Mika', writing: false }] })
    inPage(() => usePresence({ of: 'record', id: 'r1' }, ref(false)))
    leave()
    expect(states()).toEqual([])
    await soon()
    before({ [PATH]: () => [{ colleagueId: 'm', firstName: 'Mika', writing: false }] })
    const writing = ref(false)
    const others = inPage(() => usePresence({ of: 'record', id: 'r1' }, writing))
    await soon()
    writing.value = true
    await settled()
    expect([others.value, states()]).toEqual(['Mika is here.', ['looking', 'writing']])
    tell({ kind: 'presence', place: { of: 'record', id: 'r2' } })
    tell({ kind: 'presence', place: { of: 'conversation', id: 'r1' } })
    tell({ kind: 'presence', place: { of: 'record', id: 'r1' } })
    await settled()
    expect(states()).toHaveLength(3)
    leave()
    await soon()
    expect(states().at(-1)).toBe('gone')
  })
})

describe('the shelf', () => {
  it('does not show whose record is open, and keeps what it has when it cannot be read', async () => {
    const items = [{ conversationId: 'c1', record: { id: 'r1' } }, { conversationId: 'c2', record: null }]
    before({ 'GET /api/shelf': () => ({ items, total: 2 }) })
    const shelf = useShelf()
    await shelf.load()
    shelf.recordOnPage = 'r1'
    expect([shelf.shown.map(({ conversationId }) => conversationId), shelf.total]).toEqual([['c2'], 2])
    before({ 'GET /api/shelf': away })
    const failing = useShelf()
    await failing.load()
    expect([failing.failed, askedFor()]).toEqual([true, ['GET /api/shelf']])
  })
})
