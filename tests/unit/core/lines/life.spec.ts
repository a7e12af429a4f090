import fc from 'fast-check'
import { afterWord, LINE_STATES, NUMBER_STATES, stepsFrom, WORKING } from '~~/core/lines/life'

describe('a line', () => {
  it.each([
    ['ordered', ['end']],
    ['active', ['pause', 'end']],
    ['paused', ['go-on', 'end']],
    ['ending', ['keep']],
    ['ended', ['take-up']],
  ] as const)('that is %s can take these steps: %j', (state, steps) => {
    expect(stepsFrom(state)).toEqual(steps)
  })

  it('is texted and called from while it is active, and until it has ended', () => {
    expect([...WORKING]).toEqual(['active', 'ending'])
  })

  it('is never left without a step, so that nobody gets stuck', () => {
    for (const state of LINE_STATES) expect(stepsFrom(state)).not.toEqual([])
  })

  it('stays silent whatever its carrier says, until it ends', () => {
    expect(afterWord('paused', 'given')).toBe('paused')
    expect(afterWord('paused', 'ending')).toBe('ending')
    expect(afterWord('ordered', 'given')).toBe('active')
    expect(afterWord('ending', 'given')).toBe('active')
  })

  it('is the same for the same word twice', () => {
    fc.assert(fc.property(fc.constantFrom(...LINE_STATES), fc.constantFrom(...NUMBER_STATES), (state, word) => {
      expect(afterWord(afterWord(state, word), word)).toBe(afterWord(state, word))
    }))
  })
})
