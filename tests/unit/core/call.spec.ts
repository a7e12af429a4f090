import fc from 'fast-check'
import { dueIn, dueOn } from '~~/core/call/due'
import { mayFollow, sayEffect, type EffectState } from '~~/core/effects/effects'
import {
  answeredAt,
  CALL_ENDS,
  callState,
  isOff,
  isOn,
  leftMessage,
  newCall,
  outcomeOf,
  SIDES,
  talkMs,
  withEvent,
  type CallEvent,
} from '~~/core/call/facts'
import { mayCall } from '~~/core/call/gate'
import { EVERY_DAY } from '~~/core/hours/reachable'
import { zoneRules } from '~~/core/hours/zones'

const START = Date.parse('2026-11-25T17:00:00Z')
const at = fc.integer({ min: 0, max: 60 }).map(second => START + second * 1_000)
const event: fc.Arbitrary<CallEvent> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('ringing' as const, 'own-ringing' as const, 'own-answered' as const, 'leaving' as const, 'left' as const),
    at,
  }),
  fc.record({ kind: fc.constant('answered' as const), at, by: fc.constantFrom('person' as const, 'machine' as const) }),
  fc.record({ kind: fc.constant('switched' as const), at, what: fc.constantFrom('hold' as const, 'mute' as const), on: fc.boolean() }),
  fc.record({ kind: fc.constant('ended' as const), at, why: fc.constantFrom(...CALL_ENDS), side: fc.constantFrom(...SIDES) }),
)
const after = (events: CallEvent[]) => events.reduce(withEvent, newCall(START))

describe('a call', () => {
  it('goes from dialling over ringing and talking to its end', () => {
    const events: CallEvent[] = [
      { kind: 'ringing', at: START + 1_000 },
      { kind: 'answered', at: START + 4_000, by: 'person' },
      { kind: 'switched', at: START + 5_000, what: 'hold', on: true },
      { kind: 'switched', at: START + 6_000, what: 'hold', on: false },
      { kind: 'ended', at: START + 10_000, why: 'hung-up', side: 'them' },
    ]
    expect(events.map((_, index) => callState(after(events.slice(0, index + 1))))).toEqual([
      'ringing',
      'talking',
      'held',
      'talking',
      'ended',
    ])
    expect(callState(newCall(START))).toBe('dialling')
    expect([talkMs(after(events), START + 99_000), outcomeOf(after(events))]).toEqual([6_000, 'answered'])
    expect(talkMs(after(events.slice(0, 2)), START + 9_000)).toBe(5_000)
  })

  it('is the same whatever order its events come in, and however often', () => {
    fc.assert(
      fc.property(
        fc
          .array(event, { maxLength: 12 })
          .chain(events => fc.tuple(fc.constant(events), fc.shuffledSubarray([...events, ...events], { minLength: events.length * 2 }))),
        ([events, shuffled]) => {
          expect(after(shuffled)).toEqual(after(events))
        },
      ),
      { numRuns: 2000 },
    )
  })

  it('never leaves its end again, and never talks for longer than it lasted', () => {
    fc.assert(fc.property(fc.array(event, { maxLength: 12 }), (events) => {
      let ended = false
      let facts = newCall(START)
      for (const one of events) {
        facts = withEvent(facts, one)
        if (ended) expect(callState(facts)).toBe('ended')
        ended = callState(facts) === 'ended'
        expect(ended).toBe(outcomeOf(facts) !== null)
        const talked = talkMs(facts, START + 120_000)
        expect(talked).toBeGreaterThanOrEqual(0)
        if (facts.endedAt !== null) expect(talked).toBeLessThanOrEqual(Math.max(0, facts.endedAt - START))
        // whoever has not answered before the end has not answered at all
        if (facts.endedAt !== null && facts.answeredAt !== null && facts.answeredAt > facts.endedAt)
          expect([talked, answeredAt(facts)]).toEqual([0, null])
      }
    }), { numRuns: 2000 })
  })

  it('talks from the first answer to the first end, whatever else is told', () => {
    fc.assert(fc.property(fc.array(event, { maxLength: 12 }), (events) => {
      const times = (kind: CallEvent['kind']) => events.filter(one => one.kind === kind).map(one => one.at)
      const [answer, end] = [Math.min(...times('answered')), Math.min(...times('ended'))]
      // whoever leaves a message that was spoken before talks no more
      const left = Math.min(...times('leaving'))
      const off = left >= answer && left <= end ? left : end
      expect(talkMs(after(events), START + 120_000)).toBe(
        answer > end || answer === Infinity ? 0 : (off === Infinity ? START + 120_000 : off) - answer,
      )
    }), { numRuns: 2000 })
  })

  it('is as it was switched last', () => {
    fc.assert(fc.property(fc.array(event, { maxLength: 12 }), (events) => {
      const mutes = events.filter(one => one.kind === 'switched' && one.what === 'mute')
      const latest = Math.max(...mutes.map(one => one.at))
      const last = mutes.filter(one => one.at === latest).map(one => one.kind === 'switched' && one.on)
      if (last.length > 0) expect(last).toContain(isOn(after(events), 'mute'))
      else expect(isOn(after(events), 'mute')).toBe(false)
    }))
  })

  it.each([
    [{ why: 'busy', side: 'them' }, 'busy'],
    [{ why: 'no-answer', side: 'network' }, 'no-answer'],
    [{ why: 'hung-up', side: 'us' }, 'given-up'],
  ] as const)('that nobody answered and that ended with %j is called %s', (end, outcome) => {
    expect(outcomeOf(after([{ kind: 'ended', at: START + 1, ...end }]))).toBe(outcome)
  })

  it('rings with my own telephone first, where I call with it', () => {
    const events: CallEvent[] = [
      { kind: 'own-ringing', at: START + 1 },
      { kind: 'own-answered', at: START + 2 },
      { kind: 'ringing', at: START + 3 },
      { kind: 'answered', at: START + 4, by: 'person' },
    ]
    expect(events.map((_, index) => callState(after(events.slice(0, index + 1))))).toEqual(['own-phone', 'dialling', 'ringing', 'talking'])
    expect(outcomeOf(after([events[0]!, { kind: 'ended', at: START + 9, why: 'own-no-answer', side: 'us' }]))).toBe('own-no-answer')
  })

  it('lets me go as soon as a spoken message is left, and says whether all of it was heard', () => {
    const events: CallEvent[] = [
      { kind: 'answered', at: START, by: 'machine' },
      { kind: 'leaving', at: START + 2_000 },
      { kind: 'left', at: START + 9_000 },
      { kind: 'ended', at: START + 9_001, why: 'hung-up', side: 'us' },
    ]
    expect(
      events.map((_, index) => [callState(after(events.slice(0, index + 1))), leftMessage(after(events.slice(0, index + 1)))]),
    ).toEqual([
      ['talking', null],
      ['leaving', 'being-left'],
      ['leaving', 'left'],
      ['ended', 'left'],
    ])
    expect([isOff('leaving'), isOff('ended'), isOff('held')]).toEqual([true, true, false])
    expect(talkMs(after(events), START + 99_000)).toBe(2_000)
    expect(leftMessage(after([...events.slice(0, 2), { kind: 'ended', at: START + 5_000, why: 'hung-up', side: 'them' }]))).toBe('cut-off')
    // what comes before the answer, or after the end, is none
    expect(leftMessage(after([{ kind: 'leaving', at: START + 1 }, { kind: 'answered', at: START + 2, by: 'machine' }]))).toBeNull()
  })

  it('that a mailbox answered is called so', () => {
    expect(
      outcomeOf(
        after([
          { kind: 'answered', at: START, by: 'machine' },
          { kind: 'ended', at: START + 9, why: 'hung-up', side: 'us' },
        ]),
      ),
    ).toBe('machine')
  })
})

describe('whether somebody may be called', () => {
  const facts = { now: START, refused: false, zones: ['Pacific/Honolulu'], house: EVERY_DAY, wish: null, lastHeardAt: null, nightAllowed: false }
  const night = Date.parse('2026-11-25T14:00:00Z')

  it('keeps to the hours that texts keep to', () => {
    expect(mayCall({ ...facts, now: Date.parse('2026-11-25T20:00:00Z') })).toEqual({ may: true })
    expect(mayCall({ ...facts, now: night })).toEqual({ may: false, reason: 'night', notBefore: Date.parse('2026-11-25T18:00:00Z') })
    expect(mayCall({ ...facts, zones: [] })).toMatchObject({ may: false, reason: 'zone-unknown' })
    expect(mayCall({ ...facts, now: night, nightAllowed: true })).toEqual({ may: true })
    expect(mayCall({ ...facts, now: night, lastHeardAt: night - 60_000 })).toEqual({ may: true })
  })

  it('is refused where somebody has asked for no calls, whatever anybody says', () => {
    expect(mayCall({ ...facts, refused: true, nightAllowed: true, lastHeardAt: START })).toEqual({
      may: false,
      reason: 'no-calls',
      notBefore: null,
    })
  })
})

describe('what a disposition sets off', () => {
  it('can be taken back once, where it was done', () => {
    const all: EffectState[] = ['done', 'unchanged', 'failed', 'left-out', 'taken-back', 'stays']
    expect(all.flatMap(from => all.filter(to => mayFollow(from, to)).map(to => `${from} ${to}`))).toEqual(['done taken-back', 'done stays'])
  })

  it('is said in a few words', () => {
    expect(sayEffect({ kind: 'text', templateId: '' }, { template: 'Sorry I missed you' })).toBe('Text “Sorry I missed you”')
    expect(sayEffect({ kind: 'call-back', days: null, time: '10:00' }, {})).toBe('Call back, on a day you say')
  })

  it('is due by the clock there, over a change of summer time, and at the next moment there is', () => {
    const [portland, halifax] = [zoneRules('America/Los_Angeles')!, zoneRules('America/Halifax')!]
    // clocks go back on 1 November 2026 and forward on 14 March 2027 (IANA time zone database, from memory)
    expect(dueIn(Date.parse('2026-10-30T17:00:00Z'), 3, '09:30', portland)).toEqual({
      wallTime: '2026-11-02T09:30',
      zone: 'America/Los_Angeles',
      instant: Date.parse('2026-11-02T17:30:00Z'),
    })
    expect(dueOn('2027-03-14', '02:30', portland)).toMatchObject({ wallTime: '2027-03-14T03:30' })
    // late in Portland it is the next day already in Halifax
    expect(dueIn(Date.parse('2026-11-26T05:00:00Z'), 1, '10:00', halifax).wallTime).toBe('2026-11-27T10:00')
    expect(() => dueOn('2026-02-30', '10:00', portland)).toThrow(RangeError)
  })
})
