import fc from 'fast-check'
import { zoneRules } from '~~/core/hours/zones'
import { costOf } from '~~/core/money/cost'
import { periodEnd, periodStart } from '~~/core/money/limit'
import { lastsDays, runsOut } from '~~/core/money/pace'
import { microsTyped } from '~~/core/money/typed'
import { covers, leftIn, type Purse } from '~~/core/money/purse'

const DAY_MS = 86_400_000
const NOW = Date.parse('2026-12-01T12:00:00Z')
const purse = (values: Partial<Purse> = {}): Purse => ({ prepaid: true, balanceMicros: 10_000_000, heldMicros: 0, ...values })

describe('what a text will cost', () => {
  it('is by the part, or one price with pictures', () => {
    const price = { microsPerPart: 8_000, microsPerPicture: 20_000 }
    expect(costOf(price, 3, 0)).toBe(24_000)
    expect(costOf(price, 3, 2)).toBe(20_000)
  })

  it('is not known where no pictures go', () => {
    expect(costOf({ microsPerPart: 8_000, microsPerPicture: null }, 1, 1)).toBeNull()
  })
})

describe('an amount as it is typed', () => {
  it.each([['50', 50_000_000], ['12.50', 12_500_000], ['12,5', 12_500_000], [' $0.01 ', 10_000], ['7 €', 7_000_000]])('reads %s', (typed, micros) => {
    expect(microsTyped(typed)).toBe(micros)
  })

  it.each(['', 'much', '-5', '1,000', '1.234', '1e3', '12.', '12345678901'])('makes no guess of “%s”', (typed) => {
    expect(microsTyped(typed)).toBeNull()
  })
})

describe('a purse', () => {
  it('covers what is left after all that is promised, to the last millionth', () => {
    const one = purse({ heldMicros: 9_992_000 })
    expect(leftIn(one)).toBe(8_000)
    expect(covers(one, 8_000)).toBe(true)
    expect(covers(one, 8_001)).toBe(false)
  })

  it('covers everything where there is a bill afterwards', () => {
    expect(covers(purse({ prepaid: false, balanceMicros: -5 }), 1_000_000)).toBe(true)
  })
})

describe('for how long it lasts', () => {
  it('goes by the pace of a week', () => {
    expect(lastsDays(purse(), 7_000_000, NOW - 30 * DAY_MS, NOW)).toBe(10)
  })

  it('judges whoever began two days ago by these, and nobody by less than a day', () => {
    expect(lastsDays(purse(), 4_000_000, NOW - 2 * DAY_MS, NOW)).toBe(5)
    expect(lastsDays(purse(), 4_000_000, NOW - 60_000, NOW)).toBe(2.5)
  })

  it('is for ever where nothing is spent', () => {
    expect(lastsDays(purse(), 0, null, NOW)).toBeNull()
  })

  it('warns when fewer days are left than wanted, or nothing; of a bill never', () => {
    expect(runsOut(purse(), 6.9, 7)).toBe(true)
    expect(runsOut(purse(), 7, 7)).toBe(false)
    expect(runsOut(purse(), null, 7)).toBe(false)
    expect(runsOut(purse({ balanceMicros: 0 }), null, 7)).toBe(true)
    expect(runsOut(purse({ prepaid: false, balanceMicros: -1 }), 0, 7)).toBe(false)
  })
})

describe('when a limit begins anew', () => {
  const portland = zoneRules('America/Los_Angeles')!

  it('is at midnight by the clock of whose it is', () => {
    expect(new Date(periodStart('day', portland, NOW)).toISOString()).toBe('2026-12-01T08:00:00.000Z')
    expect(new Date(periodEnd('day', portland, NOW)).toISOString()).toBe('2026-12-02T08:00:00.000Z')
    expect(new Date(periodStart('month', portland, NOW)).toISOString()).toBe('2026-12-01T08:00:00.000Z')
    expect(new Date(periodEnd('month', portland, NOW)).toISOString()).toBe('2027-01-01T08:00:00.000Z')
  })

  it('is an hour earlier or later where summer time changes in between', () => {
    const march = Date.parse('2026-03-20T12:00:00Z')
    expect(new Date(periodStart('month', portland, march)).toISOString()).toBe('2026-03-01T08:00:00.000Z')
    expect(new Date(periodEnd('month', portland, march)).toISOString()).toBe('2026-04-01T07:00:00.000Z')
  })

  it('leaves no moment in no period, or in two', () => {
    fc.assert(fc.property(
      fc.integer({ min: Date.parse('2000-01-01'), max: Date.parse('2037-01-01') }),
      fc.constantFrom('America/Los_Angeles', 'Europe/London', 'Asia/Kathmandu', 'America/St_Johns'),
      fc.constantFrom('day' as const, 'month' as const),
      (now, name, period) => {
        const zone = zoneRules(name)!
        const [start, end] = [periodStart(period, zone, now), periodEnd(period, zone, now)]
        expect(start).toBeLessThanOrEqual(now)
        expect(end).toBeGreaterThan(now)
        expect(periodStart(period, zone, end)).toBe(end)
        expect(periodStart(period, zone, end - 1)).toBe(start)
      },
    ))
  })
})
