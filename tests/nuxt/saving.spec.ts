import { away, before, refuse } from '../support/app'
import { api, ApiProblem } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'

const put = () => api('/api/things', { method: 'PUT', body: {} })

describe('asking the server', () => {
  it('gives what it says of a problem, with its fields', async () => {
    before({ 'PUT /api/things': () => refuse(422, 'bad-input', 'Look at the marked fields.', { fields: { name: 'Give it a name.' } }) })
    await expect(put()).rejects.toMatchObject({
      type: 'bad-input',
      message: 'Look at the marked fields.',
      fields: { name: 'Give it a name.' },
    })
    await expect(put()).rejects.toBeInstanceOf(ApiProblem)
  })

  it('says that it cannot be reached, and that nothing is lost', async () => {
    before({ 'PUT /api/things': away })
    await expect(put()).rejects.toMatchObject({ type: 'offline', message: expect.stringMatching(/kept; try again/), fields: {} })
    expect(useMe().expired).toBe(false)
  })

  it('asks for a sign-in over the page when it has ended', async () => {
    before({ 'PUT /api/things': () => refuse(401, 'not-signed-in', 'Your sign-in has ended.') })
    await expect(put()).rejects.toMatchObject({ type: 'not-signed-in' })
    expect(useMe().expired).toBe(true)
  })
})

describe('saving a form', () => {
  it('is under way until the answer is there, then clean', async () => {
    before({ 'PUT /api/things': () => ({ ok: true }) })
    const { errors, saving, save } = useSaving('name')
    const going = save(put)
    expect(saving.value).toBe(true)
    expect([await going, saving.value, errors.value]).toEqual([true, false, {}])
  })

  it('says what is wrong at each field, or at the one that stands for all; the next try begins clean', async () => {
    before({ 'PUT /api/things': () => refuse(422, 'bad-input', 'Look.', { fields: { letter: 'One letter.' } }) })
    const { errors, save } = useSaving('name')
    expect([await save(put), errors.value]).toEqual([false, { letter: 'One letter.' }])
    before({ 'PUT /api/things': () => refuse(409, 'taken', 'Somebody has it.') })
    expect([await save(put), errors.value]).toEqual([false, { name: 'Somebody has it.' }])
    before({ 'PUT /api/things': () => null })
    expect([await save(put), errors.value]).toEqual([true, {}])
  })

  it('hides no fault of ours', async () => {
    const { saving, save } = useSaving('name')
    await expect(save(() => Promise.reject(new TypeError('ours')))).rejects.toThrow('ours')
    expect(saving.value).toBe(false)
  })
})

describe('the shelf', () => {
  const item = (conversationId: string, recordId: string | null) => ({
    conversationId,
    remote: '+1',
    waitsSince: 0,
    record: recordId && { id: recordId, name: 'Iris' },
  })

  it('leaves out whoever’s record is open, and says where it could not be loaded', async () => {
    before({ 'GET /api/shelf': () => ({ items: [item('v1', 'r1'), item('v2', null)], total: 2 }) })
    const shelf = useShelf()
    await shelf.load()
    shelf.recordOnPage = 'r1'
    expect([shelf.shown.map(({ conversationId }) => conversationId), shelf.total, shelf.failed]).toEqual([['v2'], 2, false])
    before({ 'GET /api/shelf': away })
    const others = useShelf()
    await others.load()
    expect(others.failed).toBe(true)
  })
})
