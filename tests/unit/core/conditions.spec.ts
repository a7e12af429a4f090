import fc from 'fast-check'
import { isDay, readConditions, type Condition, type ConditionKind, type Conditions } from '~~/core/conditions/conditions'
import { judge } from '~~/core/conditions/judge'
import { daysOf, instantsOf } from '~~/core/conditions/resolve'
import { addDays, dayAt, dayStart } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'

const KINDS: Record<string, ConditionKind> = {
  name: 'words',
  stage: 'one',
  tags: 'many',
  fleet: 'number',
  trial: 'day',
  contact: 'instant',
  out: 'yes-no',
}
const kindOf = (field: string) => KINDS[field] ?? null
const today = { day: '2026-11-25', zone: zoneRules('America/Los_Angeles')! }
const read = (input: unknown) => readConditions(input, kindOf)
const all = (...of: unknown[]) => ({ match: 'all', of })
const holds = (condition: Condition, values: object) =>
  judge({ match: 'all', of: [condition] }, { ...values }, field => KINDS[field]!, today)

describe('conditions from outside', () => {
  it('are read with nothing else in them', () => {
    expect(
      read({
        match: 'any',
        of: [
          { field: 'name', test: 'contains', value: ' holm ', more: 1 },
          all({ field: 'stage', test: 'one-of', value: ['New'] }, { field: 'trial', test: 'empty', value: 'x' }),
        ],
        also: 2,
      }),
    ).toEqual({
      ok: true,
      conditions: {
        match: 'any',
        of: [
          { field: 'name', test: 'contains', value: 'holm' },
          {
            match: 'all',
            of: [
              { field: 'stage', test: 'one-of', value: ['New'] },
              { field: 'trial', test: 'empty' },
            ],
          },
        ],
      },
    })
  })

  it.each([
    [null, ''], [[], ''], [{ match: 'some', of: [] }, ''], [{ match: 'all', of: 'x' }, ''],
    [all({ field: 'nobody', test: 'is', value: 'x' }), 'of.0'],
    [all({ field: 'name', test: 'at-least', value: 3 }), 'of.0'],
    [all({ field: 'name', test: 'constructor', value: 'x' }), 'of.0'],
    [all({ field: 'name', test: 'is', value: '  ' }), 'of.0'],
    [all({ field: 'name', test: 'empty' }, { field: 'fleet', test: 'at-least', value: 'many' }), 'of.1'],
    [all({ field: 'trial', test: 'on', value: '2026-02-30' }), 'of.0'],
    [all({ field: 'contact', test: 'last-days', value: 1.5 }), 'of.0'],
    [all(all({ field: 'stage', test: 'one-of', value: [] })), 'of.0.of.0'],
    [all(all(all(all()))), 'of.0.of.0.of.0'],
    [all(...Array.from({ length: 41 }, () => ({ field: 'name', test: 'empty' }))), 'of.40'],
  ])('are refused with their place: %j', (input, place) => {
    const result = read(input)
    expect(result).toMatchObject({ ok: false, problem: { place, reason: expect.stringMatching(/\w\.$/) } })
  })

  it('never make it throw, whatever comes', () => {
    fc.assert(fc.property(fc.anything(), input => typeof read(input).ok === 'boolean'), { numRuns: 500 })
  })
})

describe('conditions', () => {
  it('hold for nobody and everybody where they ask for nothing', () => {
    expect(judge({ match: 'any', of: [] }, {}, () => 'words', today)).toBe(true)
  })

  it.each<[Condition, object, boolean]>([
    [{ field: 'name', test: 'contains', value: 'HOLM' }, { name: 'Iris Holm' }, true],
    [{ field: 'name', test: 'is-not', value: 'Iris' }, { name: null }, true],
    [{ field: 'stage', test: 'none-of', value: ['New'] }, { stage: null }, true],
    [{ field: 'tags', test: 'one-of', value: ['bakery', 'clinic'] }, { tags: ['clinic', 'north'] }, true],
    [{ field: 'tags', test: 'none-of', value: ['bakery'] }, { tags: [] }, true],
    [{ field: 'tags', test: 'empty' }, { tags: [] }, true],
    [{ field: 'fleet', test: 'at-least', value: 4 }, { fleet: '4' }, true],
    [{ field: 'fleet', test: 'at-most', value: 4 }, { fleet: null }, false],
    [{ field: 'trial', test: 'next-days', value: 7 }, { trial: '2026-12-02' }, true],
    [{ field: 'trial', test: 'next-days', value: 7 }, { trial: '2026-12-03' }, false],
    [{ field: 'trial', test: 'last-days', value: 0 }, { trial: '2026-11-25' }, true],
    [{ field: 'trial', test: 'older-than-days', value: 1 }, { trial: '2026-11-24' }, false],
    [{ field: 'contact', test: 'not-for-days', value: 30 }, { contact: null }, true],
    [{ field: 'contact', test: 'older-than-days', value: 30 }, { contact: null }, false],
    [{ field: 'contact', test: 'on', value: '2026-11-24' }, { contact: Date.parse('2026-11-25T07:59:59Z') }, true],
    [{ field: 'contact', test: 'on', value: '2026-11-24' }, { contact: Date.parse('2026-11-25T08:00:00Z') }, false],
    [{ field: 'out', test: 'no' }, {}, true],
  ])('%j of %j: %s', (condition, values, expected) => expect(holds(condition, values)).toBe(expected))

  it('say the opposite of each other where they are opposites, empty or not', () => {
    const value = fc.option(fc.constantFrom('New', 'Trial', 'Offer'))
    fc.assert(
      fc.property(
        value,
        fc.subarray(['New', 'Trial'], { minLength: 1 }),
        (stage, wanted) =>
          holds({ field: 'stage', test: 'one-of', value: wanted }, { stage })
          !== holds({ field: 'stage', test: 'none-of', value: wanted }, { stage }),
      ),
    )
    fc.assert(
      fc.property(
        value,
        name =>
          holds({ field: 'name', test: 'is', value: 'new' }, { name }) !== holds({ field: 'name', test: 'is-not', value: 'new' }, { name }),
      ),
    )
  })

  it('combine as all and any do', () => {
    const two = (match: Conditions['match']): Conditions => ({
      match,
      of: [
        { field: 'out', test: 'yes' },
        { match: 'all', of: [{ field: 'name', test: 'filled' }] },
      ],
    })
    fc.assert(fc.property(fc.boolean(), fc.boolean(), (out, named) => {
      const values = { out, name: named ? 'x' : null }
      return (
        judge(two('all'), values, field => KINDS[field]!, today) === (out && named)
        && judge(two('any'), values, field => KINDS[field]!, today) === (out || named)
      )
    }))
  })
})

describe('days', () => {
  it('know the calendar', () => {
    expect(['2024-02-29', '2026-02-29', '2026-13-01', '2026-1-1', 'today'].map(isDay)).toEqual([true, false, false, false, false])
    expect(addDays('2026-02-27', 2)).toBe('2026-03-01')
  })

  // Source: the IANA time zone data, 2026: summer time of the United States begins on 8 March; Lebanon's at midnight of 29 March.
  it('begin where the clocks say so, across a change of summer time', () => {
    expect(dayStart(zoneRules('America/Los_Angeles')!, '2026-03-08')).toBe(Date.parse('2026-03-08T08:00:00Z'))
    expect(dayStart(zoneRules('America/Los_Angeles')!, '2026-03-09')).toBe(Date.parse('2026-03-09T07:00:00Z'))
    expect(dayStart(zoneRules('Asia/Beirut')!, '2026-03-29')).toBe(Date.parse('2026-03-28T22:00:00Z'))
  })

  it('begin with a moment that is of that day, right after one that is not', () => {
    const zone = fc.constantFrom(
      'America/Los_Angeles',
      'Pacific/Honolulu',
      'Europe/London',
      'America/Halifax',
      'Asia/Beirut',
      'America/Havana',
      'Australia/Lord_Howe',
    )
    fc.assert(fc.property(zone, fc.integer({ min: 0, max: 4_000 }), (name, n) => {
      const day = addDays('2020-01-01', n)
      const start = dayStart(zoneRules(name)!, day)
      expect(dayAt(zoneRules(name)!, start)).toBe(day)
      expect(dayAt(zoneRules(name)!, start - 1)).toBe(addDays(day, -1))
    }), { numRuns: 2_000 })
  })

  it('make ranges that meet: before, on and after leave nothing out and nothing twice', () => {
    const day = '2026-11-25'
    const [before, on, after] = (['before', 'on', 'after'] as const).map(test => instantsOf({ field: 'contact', test, value: day }, today))
    expect([before!.to, on!.to]).toEqual([on!.from, after!.from])
    expect(() => daysOf({ field: 'name', test: 'is', value: 'x' }, day)).toThrow()
  })
})
