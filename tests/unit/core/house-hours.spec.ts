import { houseHours, NO_RULES, weeksInForce } from '~~/core/hours/house'
import { LAWS } from '~~/core/hours/laws'
import { nextReachable, reachableAt } from '~~/core/hours/reachable'
import { everyDay, type WeekHours } from '~~/core/hours/week'
import { placesOfPerson } from '~~/core/hours/whereabouts'
import { hoursOf } from '~~/core/hours/wish'
import { mayLeaveNow } from '~~/core/message/gate'
import { regionOf } from '~~/core/places/regions'
import numberRegions from '~~/core/phone/number-regions.json'

/** Local times as instants: Halifax is four hours behind UTC then, Dallas six, Seattle eight. */
const there = (wall: string, hours: number) => Date.parse(`${wall}Z`) + hours * 3_600_000
const [DALLAS, HALIFAX, SEATTLE] = ['America/Chicago', 'America/Halifax', 'America/Los_Angeles']
const reached = (places: string[], zone: string, instant: number) => reachableAt(instant, [zone], houseHours(NO_RULES, places))

describe('stricter hours by place', () => {
  it.each([
    // Canada: 9:00 to 21:30 on weekdays, 10:00 to 18:00 at weekends (CRTC Unsolicited Telecommunications Rules); 21 is everybody's end
    ['CA-NS', HALIFAX, there('2026-12-04T08:59', 4), false], ['CA-NS', HALIFAX, there('2026-12-04T09:00', 4), true],
    ['CA-NS', HALIFAX, there('2026-12-04T20:59', 4), true], ['CA-NS', HALIFAX, there('2026-12-04T21:00', 4), false],
    ['CA-NS', HALIFAX, there('2026-12-05T09:30', 4), false], ['CA-NS', HALIFAX, there('2026-12-05T18:00', 4), false],
    // Texas: 9 to 21, on Sundays noon to 21
    ['US-TX', DALLAS, there('2026-12-04T08:30', 6), false], ['US-TX', DALLAS, there('2026-12-04T20:59', 6), true],
    ['US-TX', DALLAS, there('2026-12-06T11:59', 6), false], ['US-TX', DALLAS, there('2026-12-06T12:00', 6), true],
    // Alabama: 8 to 20 and not on Sundays
    ['US-AL', DALLAS, there('2026-12-04T19:59', 6), true], ['US-AL', DALLAS, there('2026-12-04T20:00', 6), false],
    ['US-AL', DALLAS, there('2026-12-06T15:00', 6), false],
    // Washington: 8 to 20; Oregon has none of its own
    ['US-WA', SEATTLE, there('2026-12-04T20:30', 8), false], ['US-OR', SEATTLE, there('2026-12-04T20:30', 8), true],
    // a state that nobody knows is held to the country's alone
    ['US', SEATTLE, there('2026-12-04T20:30', 8), true],
  ])('%s in %s at %d: %s', (place, zone, instant, is) => {
    expect(reached([place], zone, instant)).toBe(is)
  })

  it('names each place once, with its source and a week that can be kept', () => {
    expect(new Set(LAWS.map(({ place }) => place)).size).toBe(LAWS.length)
    for (const { place, week, source, asOf } of LAWS) {
      expect(() => reachableAt(0, [HALIFAX], { ...everyDay({ from: 0, to: 24 }), week })).not.toThrow()
      expect(nextReachable(0, [HALIFAX], houseHours(NO_RULES, [place]))).not.toBeNull()
      expect([source, asOf]).toEqual([expect.stringMatching(/\w/), expect.stringMatching(/^\d{4}-\d\d-\d\d$/)])
    }
  })

  it('holds in each place where somebody may be', () => {
    // Connecticut from 9, Florida until 20
    expect(houseHours(NO_RULES, ['US-CT', 'US-FL', 'CA']).week).toEqual([{ from: 10, to: 18 }, ...Array<object>(5).fill({ from: 9, to: 20 }), { from: 10, to: 18 }])
  })

  it('lets an admin be stricter or hold to no law, and never lets anybody be texted at night', () => {
    const early = everyDay({ from: 6, to: 24 }).week
    expect(houseHours({ choices: [{ place: 'US-TX', week: early }], closed: [] }, ['US-TX'])).toEqual(houseHours(NO_RULES, []))
    expect(houseHours({ choices: [{ place: 'US-TX', week: null }], closed: [] }, ['US-TX'])).toEqual(houseHours(NO_RULES, []))
    const short: WeekHours = [null, ...Array<null>(5).fill(null), { from: 10, to: 11.5 }]
    const saturdays = houseHours({ choices: [{ place: 'GB', week: short }], closed: [] }, ['GB'])
    expect(nextReachable(Date.parse('2026-12-01T12:00Z'), ['Europe/London'], saturdays)).toEqual(new Date('2026-12-05T10:00Z'))
    expect(reachableAt(Date.parse('2026-12-05T11:30Z'), ['Europe/London'], saturdays)).toBe(false)
    expect(weeksInForce([{ place: 'US-TX', week: null }]).map(({ place }) => place)).not.toContain('US-TX')
  })

  it('a wish narrows them and never widens them', () => {
    const house = houseHours(NO_RULES, ['US-TX'])
    expect(hoursOf({ from: 8, to: 10 }, house).week[1]).toEqual({ from: 9, to: 10 })
    expect(hoursOf({ from: 8, to: 10 }, house).week[0]).toBeNull()
  })
})

describe('days on which nobody is reached', () => {
  const closed = [{ place: 'US', day: '2026-11-26' }, { place: null, day: '2027-01-02' }]

  it('are those of the place, by its own calendar', () => {
    const texas = houseHours({ choices: [], closed }, ['US-TX'])
    expect(nextReachable(there('2026-11-25T21:00', 6), [DALLAS], texas)).toEqual(new Date(there('2026-11-27T09:00', 6)))
    expect(reachableAt(there('2026-11-26T12:00', 4), [HALIFAX], houseHours({ choices: [], closed }, ['CA-NS']))).toBe(true)
    expect(reachableAt(there('2027-01-02T12:00', 4), [HALIFAX], houseHours({ choices: [], closed }, ['CA-NS']))).toBe(false)
  })

  it('the first rule that says no is the one that is said', () => {
    const at = (wall: string, wish = null as { from: number, to: number } | null) => mayLeaveNow({
      now: there(wall, 6), zones: [DALLAS], house: houseHours({ choices: [], closed }, ['US-TX']), wish, lastHeardAt: null, nightAllowed: false,
    })
    expect(at('2026-11-26T05:00')).toMatchObject({ reason: 'night' })
    expect(at('2026-11-26T12:00')).toMatchObject({ reason: 'closed-day', notBefore: there('2026-11-27T09:00', 6) })
    expect(at('2026-11-29T10:00')).toMatchObject({ reason: 'place-hours', notBefore: there('2026-11-29T12:00', 6) })
    expect(at('2026-11-30T10:00', { from: 12, to: 15 })).toMatchObject({ reason: 'wish', notBefore: there('2026-11-30T12:00', 6) })
    expect(at('2026-11-30T10:00')).toEqual({ leaves: true })
  })

  it('never is said to be so, and not taken for a place that nobody knows', () => {
    const never = houseHours({ choices: [{ place: 'US-TX', week: Array<null>(7).fill(null) }], closed: [] }, ['US-TX'])
    const facts = { now: there('2026-11-30T10:00', 6), house: never, wish: null, lastHeardAt: null, nightAllowed: false }
    expect(mayLeaveNow({ ...facts, zones: [DALLAS] })).toEqual({ leaves: false, reason: 'place-hours', notBefore: null })
    expect(mayLeaveNow({ ...facts, zones: [] })).toEqual({ leaves: false, reason: 'zone-unknown', notBefore: null })
  })
})

describe('where somebody may be', () => {
  const places = (country: string | null, region: string | null, e164: string | null) =>
    placesOfPerson({ country, region }, e164, numberRegions)

  it.each([
    ['US', 'tx', '+12075550142', ['US-TX']], ['US', 'Texas', null, ['US-TX']], ['CA', 'Nova Scotia', null, ['CA-NS']],
    // no state in the address: that of the number, where it is in the same country
    ['US', null, '+15125550142', ['US-TX']], ['CA', null, '+15125550142', ['CA']], ['US', 'somewhere', '+18085550142', ['US-HI']],
    // no address: the number's, of which some area codes cover two provinces
    [null, null, '+19025550142', ['CA-NS', 'CA-PE']], [null, null, '+442079460142', ['GB']], [null, null, null, []],
    ['GB', 'Leeds', '+447700900142', ['GB']],
  ] as const)('%s %s %s: %j', (country, region, e164, expected) => {
    expect(places(country, region, e164)).toEqual(expected)
  })

  it('knows every state by its letters and its name', () => {
    expect([regionOf('US', ' wa '), regionOf('US', 'north carolina'), regionOf('CA', 'QC'), regionOf('GB', 'TX'), regionOf('US', '')])
      .toEqual(['US-WA', 'US-NC', 'CA-QC', 'GB', 'US'])
  })
})
