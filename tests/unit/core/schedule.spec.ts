import fc from 'fast-check'
import { instantOf, wallOf } from '~~/core/hours/schedule'
import { zoneRules } from '~~/core/hours/zones'

const rules = (zone: string) => zoneRules(zone)!
const at = (wall: string, zone: string) => {
  const found = instantOf(wall, rules(zone))
  return found.ok ? new Date(found.instant).toISOString().slice(0, 16) : found
}

describe('a wall time', () => {
  // IANA time zone database: summer time 2026 begins on 8 March and ends on 1 November in the US, on 29 March and 25 October
  // in the UK; Hawaii has none
  it.each([
    ['2026-03-07T09:00', 'America/New_York', '2026-03-07T14:00'],
    ['2026-03-08T09:00', 'America/New_York', '2026-03-08T13:00'],
    ['2026-11-01T09:00', 'America/New_York', '2026-11-01T14:00'],
    ['2026-10-24T09:00', 'Europe/London', '2026-10-24T08:00'],
    ['2026-10-25T09:00', 'Europe/London', '2026-10-25T09:00'],
    ['2026-07-01T09:00', 'Pacific/Honolulu', '2026-07-01T19:00'],
  ])('%s in %s is %s UTC', (wall, zone, utc) => expect(at(wall, zone)).toBe(utc))

  it('that comes twice is meant the first time', () => expect(at('2026-11-01T01:30', 'America/New_York')).toBe('2026-11-01T05:30'))

  it('over which clocks are put forward is none, and what they show after it is said', () => {
    expect(at('2026-03-08T02:30', 'America/New_York')).toEqual({ ok: false, reason: 'gap', next: '2026-03-08T03:30' })
    expect(at('2026-03-29T01:15', 'Europe/London')).toEqual({ ok: false, reason: 'gap', next: '2026-03-29T02:15' })
  })

  it.each(['2026-02-30T09:00', '2026-13-01T09:00', '2026-12-03 09:00', '2026-12-03T24:00', ''])('is not %j', wall =>
    expect(at(wall, 'UTC')).toEqual({ ok: false, reason: 'malformed' }),
  )

  it('is the one that its clock shows at that instant, anywhere and any time', () => {
    const zones = fc.constantFrom(
      'America/New_York',
      'Europe/London',
      'Pacific/Honolulu',
      'America/St_Johns',
      'Australia/Lord_Howe',
      'Pacific/Apia',
      'Asia/Kathmandu',
    )
    const instants = fc.integer({ min: Date.UTC(2020, 0, 1) / 60_000, max: Date.UTC(2030, 0, 1) / 60_000 }).map(minutes => minutes * 60_000)
    fc.assert(
      fc.property(zones, instants, (zone, instant) => {
        const wall = wallOf(instant, rules(zone))
        const found = instantOf(wall, rules(zone))
        expect(found.ok && wallOf(found.instant, rules(zone))).toBe(wall)
        expect(found.ok && found.instant <= instant).toBe(true)
      }),
      { numRuns: 500 },
    )
  })
})
