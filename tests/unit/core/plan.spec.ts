import fc from 'fast-check'
import { addDays, dayAt } from '~~/core/hours/days'
import { houseHours, NO_RULES } from '~~/core/hours/house'
import { EVERY_DAY, reachableAt, reachableUntil } from '~~/core/hours/reachable'
import { wallOf } from '~~/core/hours/schedule'
import { hoursOf } from '~~/core/hours/wish'
import { zoneRules } from '~~/core/hours/zones'
import { latestStart } from '~~/core/plan/latest'
import { makePlan, type Plan, type PlanAsked, type PlanGroup, type PlanLine } from '~~/core/plan/plan'
import { countBetween, dueBy, lastOf, nextAfter } from '~~/core/plan/run'

const zone = zoneRules('America/Los_Angeles')!
const HOUR = 3_600_000
const SECOND = 1_000
const utc = (when: string) => Date.parse(`${when}Z`)
const group = (id: string, zones: string[], people: number, values: Partial<PlanGroup> = {}): PlanGroup =>
  ({ id, zones, people, hours: EVERY_DAY, lineId: 'one', ...values })
const line = (values: Partial<PlanLine> = {}): PlanLine => ({ id: 'one', everyMs: SECOND, perDay: null, newSince: null, sent: null, taken: [], ...values })
const asked = (values: Partial<PlanAsked>): PlanAsked =>
  ({ start: utc('2026-11-25T17:00'), event: null, days: 1, zone, groups: [], lines: [line()], ...values })

interface Text { at: number, groupId: string, lineId: string }
const textsOf = ({ runs }: Plan): Text[] => runs
  .flatMap(({ groupId, lineId, from, everyMs, people }) =>
    Array.from({ length: people }, (_, i) => ({ at: from + i * everyMs, groupId, lineId })))
  .sort((a, b) => a.at - b.at || a.lineId.localeCompare(b.lineId))

/** Of whatever leaves, all moments are multiples of it. */
const STEP = 10_000

/** How far apart texts leave of what the others leave of a line. */
const roomOf = (everyMs: number, taken: PlanLine['taken'], at: number): number => {
  const active = taken.filter(run => run.from <= at && at < run.from + run.people * run.everyMs)
  const halves = active.reduce((sum, run) => sum + 2 * everyMs / run.everyMs, 0)
  return halves >= 2 ? Infinity : 2 * everyMs / (2 - halves)
}

/** The same rules step by step, with nothing worked out ahead: of those who may be texted now, whoever's hours end soonest. */
function plainly({ start, event, days, zone, groups, lines }: PlanAsked): Text[] {
  const texts: Text[] = []
  for (const { id: lineId, everyMs, perDay, taken, sent: before } of lines) {
    const left = new Map(groups.filter(one => one.lineId === lineId).map(one => [one.id, one.people]))
    const all = [...left.values()].reduce((sum, people) => sum + people, 0)
    const others = taken.flatMap(run => Array.from({ length: run.people }, (_, i) => run.from + i * run.everyMs))
    const sent: number[] = []
    const on = (moments: number[], day: string) => moments.filter(at => dayAt(zone, at) === day).length
    const room = (at: number) => roomOf(everyMs, taken, at)
    let free = start
    for (let at = start; at < event!; at += STEP) {
      if ([...left.values()].every(people => people === 0)) break
      if (at < free || room(at) === Infinity) continue
      const day = dayAt(zone, at)
      const allowed = (perDay ?? Infinity) - on(others, day) - (before?.day === day ? before.texts : 0)
      if (on(sent, day) >= Math.min(Math.ceil(all / days), allowed)) continue
      // on the days after the first nothing leaves before the hour of the start
      if (days > 1 && day !== dayAt(zone, start) && sent.length > 0 && wallOf(at, zone).slice(11) < wallOf(start, zone).slice(11)) continue
      const open = groups.filter(one => one.lineId === lineId && left.get(one.id)! > 0 && reachableAt(at, one.zones, one.hours))
      const ends = (one: PlanGroup) => reachableUntil(at, one.zones, one.hours)!
      const [next] = [...open].sort((a, b) => ends(a) - ends(b))
      if (!next) continue
      texts.push({ at, groupId: next.id, lineId })
      sent.push(at)
      left.set(next.id, left.get(next.id)! - 1)
      free = at + room(at)
    }
  }
  return texts.sort((a, b) => a.at - b.at || a.lineId.localeCompare(b.lineId))
}

const ZONES = ['Europe/London', 'America/Halifax', 'America/Chicago', 'America/Los_Angeles', 'Pacific/Honolulu', 'Australia/Lord_Howe']
/** Days around which clocks change, on one side of the sea or the other, and a usual one. */
const STARTS = ['2026-03-07T15:00', '2026-03-28T20:00', '2026-10-24T07:30', '2026-10-31T23:59:10', '2026-11-25T17:00'].map(utc)

const someGroups = fc.array(
  fc.record({
    zones: fc.uniqueArray(fc.constantFrom(...ZONES), { minLength: 1, maxLength: 2 }),
    hours: fc.oneof(
      fc.option(fc.constantFrom({ from: 8, to: 10 }, { from: 12, to: 17 }, { from: 20, to: 24 }), { freq: 3, nil: null })
        .map(wish => hoursOf(wish)),
      fc.subarray(['CA', 'US-AL', 'US-TX', 'US-ME']).map(places => houseHours(NO_RULES, places)),
    ),
    lineId: fc.constantFrom('one', 'two'),
    people: fc.integer({ min: 0, max: 25 }),
  }),
  { maxLength: 5 },
).map(groups => groups.map((one, i) => ({ ...one, id: `g${i}` })))
const someLine = (id: string) => fc.record({
  id: fc.constant(id),
  everyMs: fc.constantFrom(STEP, 37 * STEP, 90 * STEP),
  perDay: fc.option(fc.integer({ min: 5, max: 40 }), { nil: null }),
  newSince: fc.constant(null),
  sent: fc.option(
    fc.record({ day: fc.constantFrom(...STARTS.map(start => dayAt(zone, start))), texts: fc.integer({ min: 0, max: 30 }) }),
    { nil: null },
  ),
  taken: fc.array(fc.record({
    from: fc.constantFrom(...STARTS).chain(start => fc.integer({ min: 0, max: 200 }).map(minutes => start + minutes * 60_000)),
    // all of the line's rate, or half of it
    everyMs: fc.constantFrom(1, 2),
    people: fc.integer({ min: 1, max: 20 }),
  }), { maxLength: 3 }),
}).map(({ taken, ...one }): PlanLine => ({ ...one, taken: taken.map(run => ({ ...run, everyMs: run.everyMs * one.everyMs })) }))
const someAsked = fc.record({
  start: fc.constantFrom(...STARTS),
  event: fc.integer({ min: 1, max: 40 }),
  days: fc.constant(1),
  zone: fc.constantFrom(zone, zoneRules('Europe/London')!),
  groups: someGroups,
  lines: fc.tuple(someLine('one'), someLine('two')),
}).map(({ event, ...rest }): PlanAsked => ({ ...rest, event: rest.start + event * HOUR }))

describe('the plan of a bulk text', () => {
  it('is what going through it step by step gives', () => {
    fc.assert(fc.property(someAsked, (one) => {
      expect(textsOf(makePlan(one))).toEqual(plainly(one))
    }), { numRuns: 40 })
  }, 120_000)

  it('texts nobody outside of their hours, each once or not at all, nothing from the event on, and no line over its rate', () => {
    fc.assert(fc.property(someAsked, fc.integer({ min: 1, max: 3 }), (one, days) => {
      const plan = makePlan({ ...one, days })
      const texts = textsOf(plan)
      for (const { at, groupId } of texts) {
        const { zones, hours } = one.groups.find(({ id }) => id === groupId)!
        expect(reachableAt(at, zones, hours)).toBe(true)
        expect(at < one.event!).toBe(true)
      }
      for (const { id, people } of one.groups) {
        const left = plan.left.filter(({ groupId }) => groupId === id).reduce((sum, each) => sum + each.people, 0)
        expect(texts.filter(({ groupId }) => groupId === id).length + left).toBe(people)
      }
      for (const { id, everyMs, perDay, taken } of one.lines) {
        const own = texts.filter(({ lineId }) => lineId === id).map(({ at }) => at)
        own.forEach((at, i) => expect(i === 0 || at - own[i - 1]! >= roomOf(everyMs, taken, own[i - 1]!)).toBe(true))
        for (const at of own) expect(roomOf(everyMs, taken, at)).toBeLessThan(Infinity)
        const share = Math.ceil(one.groups.filter(({ lineId }) => lineId === id).reduce((sum, { people }) => sum + people, 0) / days)
        for (const day of new Set(own.map(at => dayAt(one.zone, at)))) {
          const others = taken.flatMap(run => Array.from({ length: run.people }, (_, i) => run.from + i * run.everyMs))
            .filter(at => dayAt(one.zone, at) === day).length
          const most = Math.min(share, Math.max(0, (perDay ?? Infinity) - others))
          expect(own.filter(at => dayAt(one.zone, at) === day).length).toBeLessThanOrEqual(most)
        }
      }
    }), { numRuns: 300 })
  }, 120_000)

  it('reaches first those whose hours end soonest, and the others when theirs begin', () => {
    // 17:00 UTC: 17:00 in Bristol, 9:00 in Portland, 7:00 in Honolulu
    const plan = makePlan(asked({ groups: [
      group('honolulu', ['Pacific/Honolulu'], 10), group('portland', ['America/Los_Angeles'], 10), group('bristol', ['Europe/London'], 10),
    ] }))
    expect(plan.runs.map(({ groupId, from }) => [groupId, from])).toEqual([
      ['bristol', utc('2026-11-25T17:00:00')], ['portland', utc('2026-11-25T17:00:10')], ['honolulu', utc('2026-11-25T18:00:00')],
    ])
    expect(plan.last).toBe(utc('2026-11-25T18:00:09'))
  })

  it('goes on the next day where the line or the spreading allows no more', () => {
    const groups = [group('portland', ['America/Los_Angeles'], 25)]
    const capped = makePlan(asked({ groups, lines: [line({ perDay: 10 })] }))
    expect(capped.runs.map(({ from, people }) => [wallOf(from, zone), people])).toEqual([
      ['2026-11-25T09:00', 10], ['2026-11-26T08:00', 10], ['2026-11-27T08:00', 5],
    ])
    const partly = makePlan(asked({ groups, lines: [line({ perDay: 10, sent: { day: '2026-11-25', texts: 7 } })] }))
    expect(partly.runs.map(({ people }) => people)).toEqual([3, 10, 10, 2])
    const spread = makePlan(asked({ groups, days: 3 }))
    expect(spread.runs.map(({ from, people }) => [wallOf(from, zone), people])).toEqual([
      ['2026-11-25T09:00', 9], ['2026-11-26T09:00', 9], ['2026-11-27T09:00', 7],
    ])
  })

  it('begins with few texts a day on a new line, and doubles them until it is known', () => {
    const start = utc('2026-11-25T17:00')
    const plan = (newSince: number | null) => makePlan(asked({ start, groups: [group('portland', ['America/Los_Angeles'], 1_000)], lines: [line({ newSince })] }))
      .runs.map(({ people }) => people)
    expect(plan(start)).toEqual([200, 400, 400])
    expect(plan(start - 7 * 24 * HOUR)).toEqual([1_000])
    expect(plan(null)).toEqual([1_000])
  })

  it('says who cannot be reached before the event, and who at no hour at all', () => {
    const plan = makePlan(asked({
      event: utc('2026-11-25T17:00:05'),
      groups: [group('portland', ['America/Los_Angeles'], 9), group('nowhere', [], 3), group('never', ['Europe/London'], 2, { hours: hoursOf({ from: 21, to: 23 }) })],
    }))
    expect(plan.left).toEqual([
      { groupId: 'nowhere', people: 3, why: 'never-in-hours' }, { groupId: 'never', people: 2, why: 'never-in-hours' },
      { groupId: 'portland', people: 4, why: 'after-event' },
    ])
  })

  it('plans 100,000 people over nine zones and four lines as quickly as a few', () => {
    const nine = [...ZONES, 'America/Denver', 'America/New_York', 'Europe/Berlin']
    const lines = ['a', 'b', 'c', 'd'].map(id => line({ id, perDay: 5_200 }))
    const plan = makePlan(asked({
      days: 5,
      lines,
      groups: nine.flatMap((one, i) => lines.map(({ id }) => group(`${i}${id}`, [one], 2_778, { lineId: id }))),
    }))
    expect(plan.runs.reduce((sum, { people }) => sum + people, 0)).toBe(9 * 4 * 2_778)
    expect(plan.runs.length).toBeLessThan(1_000)
    expect(dayAt(zone, plan.last!)).toBe(addDays('2026-11-25', 4))
  })

  it('refuses what is no plan', () => {
    expect(() => makePlan(asked({ days: 0 }))).toThrow('0 days')
    expect(() => makePlan(asked({ lines: [line({ everyMs: 0 })] }))).toThrow('no rate')
    expect(() => makePlan(asked({ lines: [line({ perDay: 0 })] }))).toThrow('nothing in a day')
    expect(() => makePlan(asked({ groups: [group('a', ['Europe/London'], 1, { lineId: 'none' })] }))).toThrow('not among the lines')
  })
})

describe('the latest start', () => {
  const QUARTER = 15 * 60_000

  it('is as long before the event as all of it takes, and at night before they close', () => {
    // an hour of texts: in Honolulu it is 7:00 at the earliest start, and noon at the event
    const hour = asked({ groups: [group('a', ['Pacific/Honolulu'], 3_600)], event: utc('2026-11-25T22:00') })
    expect(latestStart(hour, hour.start)).toBe(utc('2026-11-25T21:00'))
    // with an event in the morning of the next day, the evening before is the latest: 17:00 there is 3:00 UTC
    const night = asked({ groups: [group('a', ['Pacific/Honolulu'], 7_200)], event: utc('2026-11-26T18:30') })
    expect(makePlan({ ...night, start: latestStart(night, night.start)! }).left).toEqual([])
    expect(makePlan({ ...night, start: latestStart(night, night.start)! + QUARTER }).left).not.toEqual([])
  })

  it('is the first moment that is left where only that is early enough, and none where not even that is', () => {
    const start = utc('2026-11-25T20:07:30')
    const all = asked({ groups: [group('a', ['Pacific/Honolulu'], 3_600)], event: start + HOUR })
    expect([latestStart(all, start), latestStart(all, start + SECOND)]).toEqual([start, null])
    expect(latestStart({ ...all, event: null }, start)).toBeNull()
    expect(latestStart({ ...all, event: start }, start)).toBeNull()
  })

  it('leaves nobody out, and is the latest of all quarters of an hour that does not', () => {
    fc.assert(
      fc.property(someAsked, fc.integer({ min: 1, max: 40 }), (one, quarters) => {
        const all = { ...one, days: 1, event: Math.ceil(one.start / QUARTER) * QUARTER + quarters * QUARTER }
        const isOut = (start: number) => makePlan({ ...all, start }).left.every(({ why }) => why !== 'after-event')
        const first = Math.ceil(all.start / QUARTER)
        const starts = [all.start, ...Array.from({ length: quarters }, (_, i) => (first + i) * QUARTER)]
        expect(latestStart(all, all.start)).toBe(isOut(all.start) ? starts.filter(isOut).at(-1)! : null)
      }),
      { numRuns: 150 },
    )
  })
})

describe('a run of texts', () => {
  const run = { groupId: 'g', lineId: 'one', from: 10_000, everyMs: 3_000, people: 4 }
  it('counts what leaves between two instants as going through it does', () => {
    const moments = [10_000, 13_000, 16_000, 19_000]
    fc.assert(fc.property(fc.integer({ min: 0, max: 30_000 }), fc.integer({ min: 0, max: 30_000 }), (a, b) => {
      const [start, end] = a < b ? [a, b] : [b, a]
      expect(countBetween(run, start, end)).toBe(moments.filter(at => at >= start && at < end).length)
      expect(dueBy([run], a).get('g') ?? 0).toBe(moments.filter(at => at <= a).length)
      expect(nextAfter([run], a)).toBe(moments.find(at => at > a) ?? null)
    }))
    expect(lastOf(run)).toBe(19_000)
  })
})
