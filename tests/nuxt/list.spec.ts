import { asked, away, before, held, refuse, settled } from '../support/app'
import type { RecordPage } from '~~/shared/record'
import { useList } from '~/composables/list'

const COLUMNS = [{ key: 'name', label: 'Name' }, { key: 'stage', label: 'Stage' }]
const rows = (...ids: string[]): RecordPage => ({ rows: ids.map(id => ({ id })), size: 50 }) as unknown as RecordPage
const server = { 'GET /api/columns': () => COLUMNS, 'GET /api/records': () => rows('r1'), 'GET /api/records/count': () => ({ total: 120 }) }
const questions = () => asked.filter(({ path }) => path === '/api/records').map(({ query }) => query as Record<string, unknown>)
const typed = () => new Promise(resolve => setTimeout(resolve, 180))

describe('a list on screen', () => {
  it('asks for the first page as the module is first looked at', async () => {
    before(server)
    const list = useList('lead')
    await settled()
    expect(questions()).toEqual([expect.objectContaining({ module: 'lead', words: '', where: '', page: 1 })])
    expect([list.pages.value, list.list.value?.rows.length, list.problem.value]).toEqual([3, 1, ''])
  })

  it('asks once for what was typed, from its first page on', async () => {
    before(server)
    const list = useList('lead')
    await settled()
    list.page.value = 3
    await settled()
    for (const words of ['h', 'ho', 'hol']) list.words.value = words
    await typed()
    expect(questions().slice(1)).toEqual([
      expect.objectContaining({ page: 3, words: '' }),
      expect.objectContaining({ page: 1, words: 'hol' }),
    ])
  })

  it('is counted anew for another question, and not for another order or page', async () => {
    before(server)
    const list = useList('lead')
    await settled()
    list.sortBy('name')
    list.page.value = 2
    await settled()
    list.words.value = 'holm'
    await typed()
    await settled()
    expect(asked.filter(({ path }) => path === '/api/records/count').map(({ query }) => query)).toEqual([
      { module: 'lead', words: '', where: '' },
      { module: 'lead', words: 'holm', where: '' },
    ])
  })

  it('keeps its count while it is loaded again, and counts again what could not be counted', async () => {
    before({ ...server, 'GET /api/records/count': away })
    const list = useList('lead')
    await settled()
    expect([list.total.value, list.problem.value]).toEqual([null, expect.stringMatching(/cannot be reached/)])
    before(server)
    list.page.value = 2
    await settled()
    expect(list.total.value).toBe(120)
    const again = list.loadAgain()
    expect(list.total.value).toBe(120)
    await again
    await settled()
    expect(asked.filter(({ path }) => path === '/api/records/count')).toHaveLength(2)
  })

  it('turns its order around, or sorts by another column with what matters first', async () => {
    before(server)
    const list = useList('lead')
    list.sortBy('name')
    const before1 = list.direction.value
    list.sortBy('name')
    expect([list.sort.value, list.direction.value === before1]).toEqual(['name', false])
    list.sortBy('stage')
    expect([list.sort.value, list.direction.value]).toEqual(['stage', 'up'])
    list.sortBy('last-contact')
    expect(list.direction.value).toBe('down')
    await settled()
    expect(questions().at(-1)).toMatchObject({ sort: 'last-contact', direction: 'down' })
  })

  it('looks as a view says, with the columns that there are', async () => {
    before(server)
    const list = useList('lead')
    await settled()
    const conditions = { every: true, of: [{ field: 'stage', is: 'one-of', values: ['Trial'] }] }
    list.show({ columns: ['name', 'gone', 'stage'], conditions: conditions as never, sort: 'stage', direction: 'down' })
    await settled()
    expect(list.shownColumns.value).toEqual(COLUMNS)
    expect(questions().at(-1)).toMatchObject({ where: JSON.stringify(conditions), sort: 'stage', direction: 'down', page: 1 })
  })

  it('throws away an answer that a newer question has overtaken, its failure too', async () => {
    const [slow, failing] = [held<RecordPage>(), held<null>()]
    const answers = [() => slow.answer, () => failing.answer.then(() => refuse(400, 'bad-input', 'Too late.')), () => rows('new')]
    before({ ...server, 'GET /api/records': () => answers.shift()!() })
    const list = useList('lead')
    list.page.value = 2
    await settled()
    list.page.value = 3
    await settled()
    slow.give(rows('old'))
    failing.give(null)
    await settled()
    expect([list.list.value?.rows.map(({ id }) => id), list.problem.value]).toEqual([['new'], ''])
  })

  it('says why it cannot be shown, and can be asked again', async () => {
    before({ 'GET /api/columns': away, 'GET /api/records': away, 'GET /api/records/count': away })
    const list = useList('lead')
    await settled()
    expect(list.problem.value).toMatch(/cannot be reached/)
    before(server)
    await list.loadAgain()
    expect([list.problem.value, list.columns.value, list.total.value]).toEqual(['', COLUMNS, 120])
  })
})
