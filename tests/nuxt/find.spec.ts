import { asked, askedFor, away, before, held, inPage, settled, wentTo } from '../support/app'
import { newRef, showRef } from '~~/core/message/ref'
import type { Said } from '~~/shared/find'
import type { RecordRow } from '~~/shared/record'
import { useFind, type Found } from '~/composables/find'
import { rightsOf } from '~~/shared/permissions'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'

const row = (name: string, more: object = {}): RecordRow =>
  ({
    id: name,
    name,
    module: 'lead',
    company: { id: 'c', name: 'Holm & Daughters', sector: 'bakery' },
    phone: '+18085550142',
    mail: null,
    ...more,
  }) as unknown as RecordRow
const said = (more: Partial<Said> = {}): Said =>
  ({
    id: 'e1',
    recordId: 'r1',
    recordName: 'Iris Holm',
    words: 'Could we make it Thursday?',
    at: Date.now() - 180_000,
    kind: 'text-in',
    ...more,
  }) as Said
const server = { 'GET /api/find': () => [row('Iris Holm')], 'GET /api/find/said': () => [] as Said[] }
const words = () => asked.filter(({ path }) => path === '/api/find').map(({ query }) => (query as { words: string }).words)
let gone: Found[] = []

function begin(of: object) {
  before({ ...server, ...of })
  useMe().me = { id: 'a', role: 'rep', rights: rightsOf({ role: 'rep' }) } as never
  gone = []
  const find = inPage(() => useFind(found => gone.push(found)))
  const shown = () => find.groups.value.map(({ label, items }) => [label, ...items.map(({ name }) => name)])
  return { ...find, shown }
}

describe('finding while one types', () => {
  it('shows people with where they are and how they are reached, then what to do, then what was said', async () => {
    const { find, shown, groups } = begin({
      'GET /api/find': () => [row('Leander Holm'), row('Lea Marsh', { company: null, phone: null, mail: 'lea@marsh.example' })],
      'GET /api/find/said': () => [said(), said({ id: 'e2', kind: 'note' }), said({ id: 'e3', kind: 'text-out' })],
    })
    await find('lea')
    await settled()
    expect(shown()).toEqual([
      ['Records', 'Leander Holm', 'Lea Marsh'],
      ['To do', 'Go to leads', 'Make a new lead', 'Import a file of leads'],
      ['Said and noted', 'Iris Holm', 'Note on Iris Holm', 'To Iris Holm'],
    ])
    expect([groups.value[0]!.items.map(({ about }) => about), groups.value[2]!.items[0]!.about]).toEqual([
      ['Lead, Holm & Daughters, +1 808 555 0142', 'Lead, lea@marsh.example'],
      '3 min ago: Could we make it Thursday?',
    ])
    groups.value[2]!.items[0]!.act()
    expect(wentTo).toEqual([{ path: '/record/r1', query: { entry: 'e1' } }])
  })

  it('shows people without waiting for what was said, and of a long text the piece that has the word', async () => {
    const slow = held<Said[]>()
    const { find, shown, groups } = begin({ 'GET /api/find/said': () => slow.answer })
    await find('thursday')
    expect(shown()).toEqual([['Records', 'Iris Holm']])
    slow.give([said({ words: `${'The oven man comes on Tuesday. '.repeat(3)}Thursday is better. ${'Or later. '.repeat(12)}` })])
    await settled()
    expect(groups.value[1]!.items[0]!.about).toMatch(/^3 min ago: ….*Thursday is better\..*…$/)
  })

  it('asks with the key itself, and once', async () => {
    const { find, askEarly } = begin({})
    for (const typed of ['i', '  ', 'iris']) askEarly(typed)
    await find('iris')
    expect(words()).toEqual(['iris'])
    await find('iris')
    expect(words()).toEqual(['iris', 'iris'])
  })

  it('looks for one thing at a time, and then for what was typed last', async () => {
    const slow = held<RecordRow[]>()
    const { find, askEarly, shown } = begin({
      'GET /api/find': ({ query }: { query: { words: string } }) => (query.words === 'ir' ? slow.answer : [row(query.words)]),
    })
    const first = find('ir')
    for (const typed of ['iri', 'iris', 'iris h']) {
      askEarly(typed)
      void find(typed)
    }
    slow.give([row('Irving')])
    await first
    expect([words(), shown()]).toEqual([['ir', 'iris h'], [['Records', 'iris h']]])
  })

  it('does not show that nothing was found for half of a word, while the whole is being looked for', async () => {
    const slow = held<RecordRow[]>()
    const { find, shown, empty } = begin({
      'GET /api/find': ({ query }: { query: { words: string } }) => (query.words === 'zz' ? slow.answer : []),
    })
    const first = find('zz')
    const second = find('zzx')
    slow.give([])
    await Promise.all([first, second])
    await settled()
    expect([shown(), empty.value]).toEqual([[], 'Nobody and nothing by that name, number or word.'])
  })

  it('says what is wrong where it cannot look, and still does what can be done', async () => {
    const { find, shown, empty } = begin({ 'GET /api/find': away })
    await find('rounds')
    expect([shown(), empty.value]).toEqual([[['To do', 'Go to the call rounds']], expect.stringMatching(/cannot be reached/)])
  })
})

describe('Enter', () => {
  it('goes to the first that is found for all of what was typed, though it was pressed before', async () => {
    const { find, enter } = begin({ 'GET /api/find': ({ query }: { query: { words: string } }) => [row(query.words)] })
    await find('ir')
    expect([enter(' iris '), gone]).toEqual([true, []])
    await find('iris')
    expect(gone.map(({ name }) => name)).toEqual(['iris'])
    await find('iris h')
    expect(gone).toHaveLength(1)
  })

  it('is the list’s own where that is there, and nothing for too little', async () => {
    const { find, enter, done } = begin({})
    await find('iris')
    expect([enter('iris'), enter('i')]).toEqual([false, false])
    done()
    expect(enter('iris')).toBe(true)
  })
})

describe('what is on no record', () => {
  const stranger = { 'GET /api/find': () => [] }
  it('is texted and called', async () => {
    const { find, shown, groups } = begin({
      ...stranger,
      'GET /api/find/number': () => ({ kind: 'usable', e164: '+18085550199', line: 'Hilo line' }),
      'POST /api/conversations': () => ({ conversationId: 'c9', recordId: null }),
    })
    await find('808 555 0199')
    expect([shown(), groups.value[0]!.items[0]!.about]).toEqual([
      [['To do', 'Text +1 808 555 0199', 'Call +1 808 555 0199']],
      'on no record, from Hilo line',
    ])
    groups.value[0]!.items[0]!.act()
    await settled()
    expect(useShelf().openId).toBe('c9')
  })

  it('is texted on its record, where it has one by now', async () => {
    const { find, groups } = begin({
      ...stranger,
      'GET /api/find/number': () => ({ kind: 'usable', e164: '+18085550199', line: 'Hilo line' }),
      'POST /api/conversations': () => ({ conversationId: null, recordId: 'r7' }),
    })
    await find('808 555 0199')
    groups.value[0]!.items[0]!.act()
    await settled()
    expect(wentTo).toEqual(['/record/r7'])
  })

  it('is only called where no line texts its country, and not at all where it is no number', async () => {
    const abroad = begin({ ...stranger, 'GET /api/find/number': () => ({ kind: 'unusable', reason: 'no-line' }) })
    await abroad.find('+49 30 5550199')
    expect([abroad.shown(), abroad.empty.value]).toEqual([
      [['To do', 'Call +49 30 5550199']],
      'No line of yours texts the country of this number.',
    ])
    const short = begin({ ...stranger, 'GET /api/find/number': () => ({ kind: 'unusable', reason: 'too-short' }) })
    await short.find('808 5550')
    await settled()
    expect([short.shown(), short.empty.value]).toEqual([[], 'Digits are missing'])
  })
})

describe('a text by its ref', () => {
  const ref = newRef(() => 0x1234ABCD)
  it('is found, unknown or mistyped', async () => {
    const found = begin({ 'GET /api/find': () => [], 'GET /api/find/ref': () => ({ kind: 'found', ref, said: said() }) })
    await found.find(showRef(ref))
    expect(found.shown()).toEqual([['Said and noted', `${showRef(ref)}, Iris Holm`]])
    const unknown = begin({ 'GET /api/find': () => [], 'GET /api/find/ref': () => ({ kind: 'unknown', ref }) })
    await unknown.find(showRef(ref))
    await settled()
    expect([unknown.shown(), unknown.empty.value]).toEqual([[], `No text that you may see has the ref ${showRef(ref)}.`])
    const mistyped = begin({ 'GET /api/find': () => [], 'GET /api/find/ref': () => ({ kind: 'mistyped' }) })
    await mistyped.find(showRef(ref))
    expect(mistyped.empty.value).toMatch(/^This ref is mistyped/)
    expect(askedFor()).toContain('GET /api/find/ref')
  })
})
