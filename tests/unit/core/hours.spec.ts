import { execFileSync } from 'node:child_process'
import fc from 'fast-check'
import { ALLOWED_HOURS, EVERY_DAY, everyDay, nextReachable, offsetAt, reachableAt, rulesBetween, wallTime, zoneRules } from '~~/core'
import { reachableUntil } from '~~/core/hours/reachable'
import { dayNumber } from '~~/core/hours/week'

const utc = (iso: string) => new Date(`${iso}Z`)
const ZONES = [
  'Pacific/Honolulu',
  'America/Los_Angeles',
  'America/Chicago',
  'America/Halifax',
  'America/St_Johns',
  'America/Phoenix',
  'Europe/London',
  'Asia/Shanghai',
  'Australia/Lord_Howe',
]

describe('nobody is texted at night', () => {
  it('allows 8 to 21 where the person is (47 CFR 64.1200(c)(1), value from memory)', () => {
    expect(ALLOWED_HOURS).toEqual({ from: 8, to: 21 })
    expect(reachableAt(utc('2026-11-25T17:59:59.999'), ['Pacific/Honolulu'])).toBe(false)
    expect(reachableAt(utc('2026-11-25T18:00'), ['Pacific/Honolulu'])).toBe(true)
    expect(reachableAt(utc('2026-11-26T06:59:59.999'), ['Pacific/Honolulu'])).toBe(true)
    expect(reachableAt(utc('2026-11-26T07:00'), ['Pacific/Honolulu'])).toBe(false)
  })

  it('holds in every zone that the number may be in, and never in an unknown one', () => {
    const noonInLondon = utc('2026-06-01T11:00').getTime()
    expect(reachableAt(noonInLondon, ['Europe/London', 'America/New_York'])).toBe(false)
    expect(reachableAt(noonInLondon, [])).toBe(false)
    expect(reachableAt(noonInLondon, ['Europe/London', 'Europe/Nowhere'])).toBe(false)
  })

  it.each([
    // IANA: summer time 2026 begins on 8 March and ends on 1 November in the US and Canada, 29 March and 25 October in the UK (from memory)
    ['2026-03-07T14:00', 'America/New_York', '2026-03-07T14:00'],
    ['2026-03-08T02:00', 'America/New_York', '2026-03-08T12:00'],
    ['2026-11-01T03:00', 'America/New_York', '2026-11-01T13:00'],
    ['2026-03-29T00:30', 'Europe/London', '2026-03-29T07:00'],
    ['2026-10-25T00:30', 'Europe/London', '2026-10-25T08:00'],
  ])('the next hour from %s in %s is %s', (from, zone, next) => {
    expect(nextReachable(utc(from), [zone])).toEqual(utc(next))
  })

  it('gives the first instant after a gap when the window begins inside of it', () => {
    expect(nextReachable(utc('2026-03-08T06:30'), ['America/New_York'], everyDay({ from: 2, to: 4 }))).toEqual(utc('2026-03-08T07:00'))
  })

  it('says when there is none', () => {
    expect(nextReachable(Date.now(), ['America/New_York', 'Asia/Shanghai'], everyDay({ from: 9, to: 20 }))).toBeNull()
    expect(nextReachable(Date.now(), [])).toBeNull()
    expect(nextReachable(Date.now(), ['Europe/London'], everyDay({ from: 9, to: 9 }))).toBeNull()
  })

  it('refuses what is no time and no hour', () => {
    expect(() => reachableAt(Number.NaN, ['Europe/London'])).toThrow(RangeError)
    expect(() => nextReachable(0, ['Europe/London'], everyDay({ from: 8.25, to: 21 }))).toThrow(/half hours/)
    expect(() => nextReachable(0, ['Europe/London'], everyDay({ from: 8, to: 25 }))).toThrow(RangeError)
    expect(() => nextReachable(0, ['Europe/London'], { ...EVERY_DAY, week: [null] })).toThrow(/seven/)
  })

  it('finds the first instant and no other (against a walk in steps of a quarter of an hour)', () => {
    const quarter = 900_000
    const DAY = 86_400_000
    const instants = fc.integer({ min: Date.UTC(2026, 0) / quarter, max: Date.UTC(2027, 0) / quarter }).map(n => n * quarter)
    const window = fc
      .tuple(fc.integer({ min: 0, max: 47 }), fc.integer({ min: 1, max: 24 }))
      .map(([from, length]) => ({ from: from / 2, to: Math.min(24, (from + length) / 2) }))
    // some days have other hours than others, and some have none
    const week = fc.array(fc.option(window, { freq: 4 }), { minLength: 7, maxLength: 7 })
    const days = fc.integer({ min: dayNumber('2026-01-01'), max: dayNumber('2027-01-04') })
    const closed = fc.array(days, { maxLength: 200 }).map(found => new Set(found))
    const some = fc.uniqueArray(fc.constantFrom(...ZONES), { minLength: 1, maxLength: 2 })
    fc.assert(
      fc.property(instants, some, fc.record({ week, closed }), (instant, zones, hours) => {
        const next = nextReachable(instant, zones, hours)
        let walked = instant
        while (!reachableAt(walked, zones, hours) && walked < instant + 3 * DAY) walked += quarter
        if (next && next.getTime() < instant + 3 * DAY) expect(next.getTime()).toBe(walked)
        else expect(reachableAt(walked, zones, hours)).toBe(false)
        const until = next && reachableUntil(next, zones, hours)!
        if (next && until !== Infinity) {
          expect(reachableAt(until!, zones, hours)).toBe(false)
          const last = Math.min(until!, next.getTime() + 2 * DAY)
          for (let at = next.getTime(); at < last; at += quarter) expect(reachableAt(at, zones, hours)).toBe(true)
        }
      }),
      { numRuns: 300 },
    )
  })
})

describe('zone rules', () => {
  it('agree with Debian\'s tzdata in every zone of the scenario', () => {
    for (const zone of ZONES) {
      const instants = Array.from({ length: 24 * 53 }, (_, i) => Date.UTC(2026, 0, 1) / 1000 + i * 7 * 3600)
      const outside = execFileSync('date', ['-f', '-', '+%z'], {
        env: { TZ: zone, LC_ALL: 'C' },
        input: instants.map(s => `@${s}`).join('\n'),
        encoding: 'utf8',
      })
        .trim()
        .split('\n')
      const ours = instants.map((s) => {
        const offset = offsetAt(zoneRules(zone)!, s * 1000)
        const size = Math.abs(offset)
        return `${offset < 0 ? '-' : '+'}${String(Math.floor(size / 60)).padStart(2, '0')}${String(size % 60).padStart(2, '0')}`
      })
      expect([zone, ours]).toEqual([zone, outside])
    }
  })

  it('cut to a span still say the same within it', () => {
    const from = Date.UTC(2025, 10)
    const to = Date.UTC(2026, 11)
    fc.assert(fc.property(fc.integer({ min: from, max: to }), fc.constantFrom(...ZONES), (instant, zone) => {
      const rules = zoneRules(zone)!
      expect(wallTime(JSON.parse(JSON.stringify(rulesBetween(rules, from, to))), instant)).toEqual(wallTime(rules, instant))
    }))
  })
})
