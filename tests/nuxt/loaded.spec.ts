import { away, before, settled } from '../support/app'
import { useLoaded } from '~/composables/loaded'

describe('what is read once', () => {
  it('is nothing until it is there, and then says so once', async () => {
    before({ 'GET /api/things': () => ['one'] })
    let there = 0
    const { found, problem } = useLoaded<string[]>('/api/things', () => there++)
    expect(found.value).toBeNull()
    await settled()
    expect([found.value, problem.value, there]).toEqual([['one'], '', 1])
  })

  it('says why it could not be read, and is there when it is read again', async () => {
    before({ 'GET /api/things': away })
    const { found, problem, load } = useLoaded<string[]>('/api/things')
    await settled()
    expect([found.value, problem.value]).toEqual([null, expect.stringMatching(/cannot be reached/)])
    before({ 'GET /api/things': () => [] })
    await load()
    expect([found.value, problem.value]).toEqual([[], ''])
  })
})
