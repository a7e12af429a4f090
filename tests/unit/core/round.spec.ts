import fc from 'fast-check'
import { byLocalTime } from '~~/core/call/by-local-time'
import { passOver, type PassFacts } from '~~/core/call/pass-over'
import { HOLD_MS, isDue, mayTurn, newStanding, ROUND_STATES, STANDINGS, withRoundEvent, type Standing } from '~~/core/call/round'
import { houseHours, NO_RULES } from '~~/core/hours/house'
import { everyDay } from '~~/core/hours/week'
import { ALLOWED_HOURS, EVERY_DAY, reachableAt, reachableUntil } from '~~/core/hours/reachable'

const NOW = Date.parse('2026-11-25T18:00:00Z')
const HOUR = 3_600_000

/** What everybody believes of a round: who was called by whom, and whom each has in hand. */
interface Model { now: number, called: Map<number, string>, hands: Map<string, number> }
interface Real { people: Standing[] }

const put = (real: Real, person: number, event: Parameters<typeof withRoundEvent>[1]) => {
  const after = withRoundEvent(real.people[person]!, event)
  if (after) real.people[person] = after
  return after !== null
}

class Take implements fc.Command<Model, Real> {
  constructor(readonly by: string, readonly person: number) {}
  check = ({ hands }: Model) => !hands.has(this.by)
  run(model: Model, real: Real) {
    const before = real.people[this.person]!
    const due = isDue(before, model.now)
    expect(put(real, this.person, { kind: 'hold', by: this.by, at: model.now })).toBe(
      due || (before.by === this.by && before.state === 'held'),
    )
    if (!due) return
    // whoever had them has gone away
    for (const [other, person] of model.hands) if (person === this.person) model.hands.delete(other)
    model.hands.set(this.by, this.person)
  }

  toString = () => `${this.by} takes ${this.person}`
}

class Tell implements fc.Command<Model, Real> {
  constructor(readonly by: string, readonly person: number, readonly kind: 'call' | 'skip' | 'later' | 'let-go') {}
  check = () => true
  run(model: Model, real: Real) {
    const mine = model.hands.get(this.by) === this.person
    expect(put(real, this.person, { kind: this.kind, by: this.by, at: model.now })).toBe(mine)
    if (!mine) return
    model.hands.delete(this.by)
    if (this.kind === 'call') {
      expect(model.called.has(this.person)).toBe(false)
      model.called.set(this.person, this.by)
    }
  }

  toString = () => `${this.by}: ${this.kind} ${this.person}`
}

class Pass implements fc.Command<Model, Real> {
  constructor(readonly person: number, readonly forMs: number | null) {}
  check = ({ hands }: Model) => ![...hands.values()].includes(this.person)
  run(model: Model, real: Real) {
    put(real, this.person, { kind: 'pass', reason: 'night', notBefore: this.forMs === null ? null : model.now + this.forMs, at: model.now })
  }

  toString = () => `pass ${this.person} over for ${this.forMs}`
}

class Wait implements fc.Command<Model, Real> {
  constructor(readonly ms: number) {}
  check = () => true
  run(model: Model) {
    model.now += this.ms
  }

  toString = () => `wait ${this.ms}`
}

describe('a round', () => {
  const by = fc.constantFrom('ada', 'mika', 'odile')
  const person = fc.integer({ min: 0, max: 4 })
  const commands = fc.commands<Model, Real>(
    [
      fc.tuple(by, person).map(([who, whom]) => new Take(who, whom)),
      fc
        .tuple(by, person, fc.constantFrom('call' as const, 'skip' as const, 'later' as const, 'let-go' as const))
        .map(([who, whom, kind]) => new Tell(who, whom, kind)),
      fc.tuple(person, fc.constantFrom(null, 60_000, HOLD_MS)).map(([whom, ms]) => new Pass(whom, ms)),
      fc.constantFrom(1_000, HOLD_MS / 2, HOLD_MS).map(ms => new Wait(ms)),
    ],
    { size: '+1' },
  )

  it('hands nobody to two at once and has nobody called twice, whatever its colleagues do and however late', () => {
    fc.assert(fc.property(commands, (all) => {
      fc.modelRun(
        () => ({ model: { now: NOW, called: new Map(), hands: new Map() }, real: { people: Array.from({ length: 5 }, newStanding) } }),
        all,
      )
    }), { numRuns: 2000 })
  })

  it('knows every state, and leaves what is done alone until it is put back', () => {
    const done = fc.constantFrom('called' as const, 'skipped' as const, 'passed' as const)
    fc.assert(fc.property(done, fc.constantFrom('hold', 'call', 'skip', 'later', 'let-go', 'pass'), (state, kind) => {
      const standing: Standing = { ...newStanding(), state, by: 'ada' }
      expect(withRoundEvent(standing, { kind, by: 'ada', at: NOW, reason: 'night', notBefore: null } as never)).toBeNull()
      expect(withRoundEvent(standing, { kind: 'again', at: NOW })).toEqual({ ...newStanding(), turn: 1 })
      expect(STANDINGS).toContain(state)
    }))
  })

  it('gives somebody who was handed out and forgotten to the next, and then no more to the first', () => {
    const held = withRoundEvent(newStanding(), { kind: 'hold', by: 'ada', at: NOW })!
    expect(withRoundEvent(held, { kind: 'hold', by: 'mika', at: NOW + HOLD_MS - 1 })).toBeNull()
    const taken = withRoundEvent(held, { kind: 'hold', by: 'mika', at: NOW + HOLD_MS })!
    expect([taken.by, withRoundEvent(taken, { kind: 'call', by: 'ada', at: NOW + HOLD_MS })]).toEqual(['mika', null])
    // as long as nobody else has them, being slow takes nothing away
    expect(withRoundEvent(held, { kind: 'call', by: 'ada', at: NOW + 2 * HOLD_MS })?.state).toBe('called')
  })

  it('is paused, stopped and taken up again', () => {
    expect(ROUND_STATES.flatMap(from => ROUND_STATES.filter(to => mayTurn(from, to)).map(to => `${from} ${to}`))).toEqual([
      'open paused',
      'open stopped',
      'paused open',
      'paused stopped',
      'stopped open',
    ])
  })
})

describe('who is passed over', () => {
  const facts: PassFacts = {
    now: NOW,
    hasNumber: true,
    refused: false,
    zones: ['Pacific/Honolulu'],
    house: EVERY_DAY,
    wish: null,
    lastHeardAt: null,
    lastCalledAt: null,
    notWithinMs: 24 * HOUR,
  }

  it('says why, and until when', () => {
    expect(passOver(facts)).toBeNull()
    expect(passOver({ ...facts, hasNumber: false })).toEqual({ reason: 'no-number', notBefore: null })
    expect(passOver({ ...facts, refused: true, lastCalledAt: NOW })).toEqual({ reason: 'no-calls', notBefore: null })
    expect(passOver({ ...facts, lastCalledAt: NOW - 23 * HOUR })).toEqual({ reason: 'called-lately', notBefore: NOW + HOUR })
    expect(passOver({ ...facts, lastCalledAt: NOW - 24 * HOUR })).toBeNull()
    expect(passOver({ ...facts, now: NOW - 1 })).toEqual({ reason: 'night', notBefore: NOW })
    expect(passOver({ ...facts, now: NOW - 1, lastHeardAt: NOW - 60_000 })).toBeNull()
    expect(passOver({ ...facts, zones: [] })).toEqual({ reason: 'zone-unknown', notBefore: null })
  })
})

describe('the order by local time', () => {
  const inOrder = (places: string[][], at: string) =>
    byLocalTime(places.map(zones => ({ zones, hours: EVERY_DAY })), Date.parse(`${at}Z`)).map(({ zones }) => zones)

  it('begins where the hours end soonest, and ends with their night', () => {
    const [honolulu, portland, halifax, bristol, nowhere] = [
      ['Pacific/Honolulu'],
      ['America/Los_Angeles'],
      ['America/Halifax'],
      ['Europe/London'],
      [],
    ]
    // 20:30 in Bristol, 16:30 in Halifax, 12:30 in Portland, 10:30 in Honolulu
    expect(inOrder([honolulu, nowhere, halifax, bristol, portland], '2026-11-25T20:30')).toEqual([bristol, halifax, portland, honolulu, nowhere])
    // 23:30 in Bristol
    expect(inOrder([bristol, portland, halifax], '2026-11-25T23:30')).toEqual([halifax, portland, bristol])
  })

  it('goes by the hours of the place, where they are stricter', () => {
    // 19:30 in Seattle and in Portland: in Washington nobody is called from 20 on
    const seattle = { zones: ['America/Los_Angeles'], hours: houseHours(NO_RULES, ['US-WA']) }
    const portland = { zones: ['America/Los_Angeles'], hours: houseHours(NO_RULES, ['US-OR']) }
    expect(byLocalTime([portland, seattle], Date.parse('2026-11-26T03:30Z'))).toEqual([seattle, portland])
    expect(byLocalTime([seattle, portland], Date.parse('2026-11-26T04:30Z'))).toEqual([portland, seattle])
  })

  it('ends the hours at the first instant at which nobody may be reached any more', () => {
    const zones = fc.subarray(['Pacific/Honolulu', 'America/Los_Angeles', 'America/St_Johns', 'Europe/London', 'Australia/Lord_Howe'], {
      minLength: 1,
    })
    fc.assert(
      fc.property(fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true }), zones, (date, places) => {
        const end = reachableUntil(date, places)
        expect(end === null).toBe(!reachableAt(date, places))
        if (end === null) return
        expect([reachableAt(end - 1, places), reachableAt(end, places)]).toEqual([true, false])
        expect(end - date.getTime()).toBeLessThanOrEqual((ALLOWED_HOURS.to - ALLOWED_HOURS.from + 1) * HOUR)
        for (let at = date.getTime(); at < end; at += HOUR) expect(reachableAt(at, places)).toBe(true)
      }),
      { numRuns: 500 },
    )
    expect(reachableUntil(NOW, ['Europe/London'], everyDay({ from: 0, to: 24 }))).toBe(Infinity)
  })
})
