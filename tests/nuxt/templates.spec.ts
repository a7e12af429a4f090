import { asked, away, before, held, inPage, refuse, settled } from '../support/app'
import type { FilledTemplate, TemplateDetail } from '~~/shared/template'
import { useFilledTemplates } from '~/composables/filled-templates'
import { useTemplateForm } from '~/composables/template-form'
import { useTemplateList } from '~/composables/template-list'

const template = (name: string, folder: string, more: Partial<TemplateDetail> = {}): TemplateDetail =>
  ({
    id: name,
    name,
    folder,
    description: '',
    body: 'Hi',
    modules: ['lead'],
    fillIns: [],
    audience: 'mine',
    team: null,
    version: 2,
    favourite: false,
    mayEdit: true,
    ...more,
  }) as unknown as TemplateDetail
const names = ({ shown }: ReturnType<typeof useTemplateList>) =>
  shown.value.map(({ name, templates }) => [name, ...templates.map(one => one.name)])

describe('the list of templates', () => {
  const three = [
    template('Offer', 'Sales'),
    template('Missed', 'Calls', { body: 'Sorry I missed you', favourite: true }),
    template('Loose', ''),
  ]
  const server = {
    'GET /api/templates': () => three,
    'PUT /api/templates/Offer/favourite': () => null,
    'DELETE /api/templates/Offer': () => null,
  }

  it('has favourites first, then folders by name, then what is in none', async () => {
    before({ ...server, 'GET /api/templates': () => [...three, template('Again', 'Calls')] })
    const list = useTemplateList()
    await settled()
    expect(names(list)).toEqual([['Favourites', 'Missed'], ['Calls', 'Again'], ['Sales', 'Offer'], ['In no folder', 'Loose']])
    expect([list.first.value?.name, list.folders.value]).toEqual(['Missed', ['Calls', 'Sales']])
  })

  it('is found by all of the words, wherever they stand', async () => {
    before(server)
    const list = useTemplateList()
    await settled()
    list.words.value = ' sorry CALLS '
    expect(names(list)).toEqual([['Favourites', 'Missed']])
    list.words.value = 'sorry sales'
    expect(names(list)).toEqual([])
  })

  it('draws a hundred at first, and more when asked', async () => {
    before({
      ...server,
      'GET /api/templates': () =>
        Array.from({ length: 250 }, (_, n) => template(`T${n}`, n < 150 ? 'A' : 'B', { body: n < 150 ? 'Early' : 'Late' })),
    })
    const list = useTemplateList()
    await settled()
    expect([names(list).map(one => one.length - 1), list.hidden.value]).toEqual([[100], 150])
    list.showMore()
    expect([names(list).map(one => one.length - 1), list.hidden.value]).toEqual([[150, 50], 50])
    list.words.value = 'early'
    await settled()
    expect([names(list).map(one => one.length - 1), list.hidden.value]).toEqual([[100], 50])
  })

  it('favours and retires; what cannot be done is said and changes nothing', async () => {
    before(server)
    const list = useTemplateList()
    await settled()
    await list.favour(three[0]!)
    expect(asked.at(-1)?.body).toEqual({ favourite: true })
    expect(names(list)[0]).toEqual(['Favourites', 'Offer', 'Missed'])
    await list.retire(three[0]!)
    expect(list.templates.value?.map(({ name }) => name)).toEqual(['Missed', 'Loose'])
    before({ 'DELETE /api/templates/Loose': () => refuse(403, 'not-allowed', 'Only its owner retires it.') })
    expect(await list.retire(three[2]!)).toBe(false)
    expect([list.problem.value, list.templates.value?.length]).toEqual(['Only its owner retires it.', 2])
  })
})

describe('the templates for one person', () => {
  const filled = (id: string): FilledTemplate => ({ id, favourite: false, text: 'Hi Iris' }) as unknown as FilledTemplate
  const PATH = '/api/records/r1/templates'

  it('are filled anew when it is said what the text is about, and one with what was filled in', async () => {
    before({
      [`GET ${PATH}`]: () => ({ templates: [filled('t1')], contexts: [{ id: 'd1' }] }),
      [`POST ${PATH}/t1`]: () => ({ text: 'Hi Iris, on Thursday', missing: [] }),
    })
    const { aboutId, templates, contexts, fill } = useFilledTemplates(PATH, 'ABCD1234')
    await settled()
    aboutId.value = 'd1'
    await settled()
    expect(asked.map(({ query }) => query)).toEqual([{ aboutId: undefined, ref: 'ABCD1234' }, { aboutId: 'd1', ref: 'ABCD1234' }])
    expect([templates.value?.length, contexts.value.length]).toEqual([1, 1])
    expect((await fill('t1', { day: '2026-12-03' })).text).toBe('Hi Iris, on Thursday')
    expect(asked.at(-1)?.body).toEqual({ answers: { day: '2026-12-03' }, aboutId: 'd1', ref: 'ABCD1234' })
  })

  it('say why they cannot be had, and favour what the server took', async () => {
    before({ [`GET ${PATH}`]: away })
    const { problem, load, templates, favour } = useFilledTemplates(PATH, 'ABCD1234')
    await settled()
    expect(problem.value).toMatch(/cannot be reached/)
    before({ [`GET ${PATH}`]: () => ({ templates: [filled('t1')], contexts: [] }), 'PUT /api/templates/t1/favourite': () => null })
    await load()
    await favour(templates.value![0]!)
    expect([problem.value, templates.value![0]!.favourite]).toEqual(['', true])
    before({ 'PUT /api/templates/t1/favourite': away })
    await favour(templates.value![0]!)
    expect([templates.value![0]!.favourite, problem.value]).toEqual([true, expect.stringMatching(/cannot be reached/)])
  })
})

describe('writing a template', () => {
  const TRY = 'POST /api/templates/try'
  const server = {
    'GET /api/templates/fields': () => [{ path: 'person.first_name', label: 'first name' }],
    [TRY]: () => ({ problems: [], holes: [], text: 'Hi Iris', record: null }),
  }
  const tries = () => asked.filter(({ path }) => path === '/api/templates/try').map(({ body }) => body as { body: string })
  const soon = () => new Promise(resolve => setTimeout(resolve, 230))

  it('is tried on somebody a moment after the last key, and not while it is empty', async () => {
    before(server)
    const { form, trial } = inPage(() => useTemplateForm(null, () => undefined))
    await soon()
    expect(tries()).toEqual([])
    for (const body of ['H', 'Hi', 'Hi {{ person.first_name }}']) form.body.value = body
    await soon()
    expect([tries().map(({ body }) => body), trial.value?.text]).toEqual([['Hi {{ person.first_name }}'], 'Hi Iris'])
  })

  it('shows the trial of what is written now, whichever answer comes last', async () => {
    const slow = held<object>()
    before({
      ...server,
      [TRY]: ({ body }) =>
        (body as { body: string }).body === 'Old' ? slow.answer : { problems: [], holes: [], text: 'New', record: null },
    })
    const { form, trial } = inPage(() => useTemplateForm(null, () => undefined))
    form.body.value = 'Old'
    await soon()
    form.body.value = 'New'
    await soon()
    slow.give({ problems: [], holes: [], text: 'Old', record: null })
    await settled()
    expect(trial.value?.text).toBe('New')
  })

  it('has the fields of its modules, and those that are filled in when it is sent', async () => {
    before(server)
    const { form, fields, toggle } = inPage(() => useTemplateForm(null, () => undefined))
    await settled()
    toggle('client')
    await settled()
    expect(asked.filter(({ path }) => path === '/api/templates/fields').at(-1)?.query).toEqual({ modules: ['lead', 'client'] })
    form.fillIns.value = [
      { key: 'day', label: 'Day', kind: 'text', required: true, example: '' },
      { key: 'new', label: '', kind: 'text', required: true, example: '' },
    ] as never
    expect(fields.value.map(({ path }) => path)).toEqual(['person.first_name', 'fill_in.day'])
    toggle('client')
    toggle('lead')
    await settled()
    expect(form.modules.value).toEqual([])
  })

  it('is saved as a new version, or under the same id until it is', async () => {
    const saved: string[] = []
    before({ ...server, 'PUT /api/templates/Offer': () => null })
    await inPage(() => useTemplateForm(template('Offer', 'Sales', { body: 'Hi there' }), id => saved.push(id))).save()
    expect([saved, asked.at(-1)?.body]).toEqual([['Offer'], expect.objectContaining({ name: 'Offer', version: 2, body: 'Hi there' })])
    before({
      ...server,
      'POST /api/templates': () =>
        refuse(422, 'bad-input', 'Look at the marked fields.', { fields: { name: 'There is one of this name.' } }),
    })
    const { form, save, errors, problem } = inPage(() => useTemplateForm(null, id => saved.push(id)))
    form.name.value = 'Offer'
    form.body.value = 'Hi there'
    await save()
    expect([errors.value.name, problem.value]).toEqual(['There is one of this name.', ''])
    before({ ...server, 'POST /api/templates': () => null })
    form.name.value = 'Offer 2'
    await save()
    expect(saved).toHaveLength(2)
    expect(saved[1]).toBe((asked.at(-1)?.body as { id: string }).id)
  })
})
