import fc from 'fast-check'
import { difference, wilson } from '~~/core/numbers/wilson'

describe('the interval of a share', () => {
  // Newcombe, Statistics in Medicine 17 (1998) 857-872, table I, Wilson score method without continuity correction; values from memory
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('of %i in %i is %f to %f', (hits, of, low, high) => {
    const found = wilson(hits, of)!
    expect(Number(found.low.toFixed(4))).toBe(low)
    expect(Number(found.high.toFixed(4))).toBe(high)
  })

  it('is none of no cases', () => expect(wilson(0, 0)).toBeNull())

  it('holds the share, stays within 0 and 1, and narrows with more cases', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 5_000 }), fc.nat(5_000), (of, n) => {
      const hits = n % (of + 1)
      const [few, many] = [wilson(hits, of)!, wilson(hits * 10, of * 10)!]
      expect(few.low >= 0 && few.low <= few.share + 1e-12 && few.share <= few.high + 1e-12 && few.high <= 1).toBe(true)
      expect(many.high - many.low).toBeLessThanOrEqual(few.high - few.low + 1e-12)
    }))
  })
})

describe('the difference of two shares', () => {
  // Newcombe, Statistics in Medicine 17 (1998) 873-890, table II, method 10; values from memory: 56/70 less 48/80 is 0.0524 to 0.3339
  it('of 56 in 70 and 48 in 80 is 0.0524 to 0.3339', () => {
    const { low, high, verdict } = difference(wilson(56, 70)!, wilson(48, 80)!)
    expect([Number(low.toFixed(4)), Number(high.toFixed(4)), verdict]).toEqual([0.0524, 0.3339, 'first'])
  })

  it('is open where chance may explain it, and the same the other way around', () => {
    expect(difference(wilson(5, 20)!, wilson(7, 20)!).verdict).toBe('open')
    expect(difference(wilson(48, 80)!, wilson(56, 70)!).verdict).toBe('second')
  })
})
