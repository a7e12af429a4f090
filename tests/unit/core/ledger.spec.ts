import fc from 'fast-check'
import { consentAt, type ConsentEntry } from '~~/core'
import { sayMoney } from '~~/core/numbers/money'
import { rhythmColumns } from '~~/core/timeline/rhythm'

const entry = fc.record({
  id: fc.uuid(),
  annulsId: fc.constant(null),
  at: fc.integer({ min: 0, max: 50 }),
  sequence: fc.nat(),
  kind: fc.constantFrom<ConsentEntry['kind']>('agreed', 'refused'),
  covers: fc.constantFrom<ConsentEntry['covers']>('texts', 'calls', 'both'),
})

describe('consentAt', () => {
  it('lets the newest word count, for what it covers', () => {
    const ledger: ConsentEntry[] = [
      { id: 'a', annulsId: null, at: 10, sequence: 1, kind: 'agreed', covers: 'both' },
      { id: 'b', annulsId: null, at: 20, sequence: 2, kind: 'refused', covers: 'texts' },
      { id: 'c', annulsId: null, at: 30, sequence: 3, kind: 'agreed', covers: 'texts' },
    ]
    expect(consentAt(ledger, 9)).toMatchObject({ texts: 'unknown', calls: 'unknown' })
    expect(consentAt(ledger, 25)).toMatchObject({ texts: 'refused', calls: 'agreed', textsBy: ledger[1] })
    expect(consentAt(ledger, 30)).toMatchObject({ texts: 'agreed', textsBy: ledger[2] })
  })

  it('is after a word is taken back as it was before that word, and never a word that nobody has said', () => {
    fc.assert(fc.property(fc.uniqueArray(entry, { selector: e => e.sequence }), entry, (entries, { at, ...taken }) => {
      const before = consentAt(entries, 60)
      const word = { ...taken, at: 55, sequence: 1_000 }
      const back = { ...word, id: 'back', kind: 'annulled' as const, annulsId: word.id, at: 57 }
      expect(consentAt([...entries, word, back], 60)).toEqual(before)
      expect(consentAt([...entries, word, back], 56)).toEqual(consentAt([...entries, word], 56))
    }))
  })

  it('depends neither on the order of the entries nor on later ones', () => {
    fc.assert(fc.property(fc.uniqueArray(entry, { selector: e => e.sequence }), fc.integer({ min: 0, max: 50 }), (entries, instant) => {
      const state = consentAt(entries, instant)
      expect(consentAt([...entries].reverse(), instant)).toEqual(state)
      expect(consentAt(entries.filter(e => e.at <= instant), instant)).toEqual(state)
    }))
  })
})

describe('sayMoney', () => {
  it.each([
    [8_000, 'USD', '0.8 ¢'],
    [16_000, 'USD', '1.6 ¢'],
    [40_000, 'GBP', '4 p'],
    [18_980_000, 'USD', '18.98 $'],
    [-500_000, 'EUR', '-50 c'],
    [0, 'USD', '0 ¢'],
  ])('says %d micros of %s as %s', (micros, currency, words) => {
    expect(sayMoney({ micros, currency })).toBe(words)
  })
})

describe('rhythmColumns', () => {
  it('loses no contact of the span and fits the strip', () => {
    const day = fc.record({ day: fc.integer({ min: -10, max: 410 }), ours: fc.nat(5), theirs: fc.nat(5), calls: fc.nat(5) })
    fc.assert(fc.property(fc.array(day), fc.integer({ min: 1, max: 200 }), (days, columns) => {
      const strip = rhythmColumns(days, 0, 364, columns)
      const inside = days.filter(d => d.day >= 0 && d.day <= 364)
      expect(strip.length).toBeLessThanOrEqual(columns)
      expect(strip.reduce((sum, c) => sum + c.ours + c.theirs + c.calls, 0)).toBe(
        inside.reduce((sum, d) => sum + d.ours + d.theirs + d.calls, 0),
      )
    }))
  })
})
