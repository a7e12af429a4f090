import { before, inPage, refuse, settled } from '../support/app'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

const ask = () => api('/api/things', { method: 'POST', body: {} })

describe('asking for what may be refused', () => {
  it('tells why, at the field that it is about, until something goes', async () => {
    let answer = (): unknown => refuse(422, 'bad-input', 'Not so.', { fields: { day: 'Choose a day.' } })
    before({ 'POST /api/things': () => answer() })
    const { problem, errors, busy, trying } = inPage(useTrying)
    expect(await trying(ask)).toBe(false)
    expect([problem.value, errors.value, busy.value]).toEqual(['Choose a day.', { day: 'Choose a day.' }, false])
    answer = () => refuse(409, 'taken', 'Mika has it.')
    expect(await trying(ask)).toBe(false)
    expect([problem.value, errors.value]).toEqual(['Mika has it.', {}])
    answer = () => null
    const going = trying(ask)
    expect([busy.value, problem.value]).toEqual([true, 'Mika has it.'])
    expect(await going).toBe(true)
    expect([busy.value, problem.value, errors.value]).toEqual([false, '', {}])
  })

  it('throws what is a fault of ours, and is not busy after it', async () => {
    before({})
    const { problem, busy, trying } = inPage(useTrying)
    await expect(trying(() => Promise.reject(new TypeError('a fault')))).rejects.toThrow('a fault')
    await settled()
    expect([problem.value, busy.value]).toEqual(['', false])
  })
})
