import fc from 'fast-check'
import { afterEvent, explain, mayLeave, MESSAGE_STATES, STATE_WORDS, type GateFacts, type MessageEvent, type MessageState } from '~~/core'
import { EVERY_DAY } from '~~/core/hours/reachable'
import { ANSWER_WELCOME_FOR, LATE_AFTER, STALE_AFTER } from '~~/core/message/gate'

const reports = fc.constantFrom<MessageEvent>('sent', 'delivered', 'undelivered')

describe('the life of a text', () => {
  it('goes from waiting to delivered', () => {
    const path: MessageEvent[] = ['claim', 'accepted', 'sent', 'delivered']
    expect(path.reduce<MessageState>((state, event) => afterEvent(state, event)!, 'waiting')).toBe('delivered')
  })

  it('comes out the same whatever the order of the reports, and however often each came', () => {
    fc.assert(
      fc.property(
        fc.array(reports, { minLength: 1 }),
        fc.infiniteStream(fc.nat()),
        fc.constantFrom<MessageState>('accepted', 'handing-over', 'unreported'),
        (events, numbers, start) => {
          const shuffled = [...events, ...events]
            .map(event => ({ event, by: numbers.next().value as number }))
            .sort((a, b) => a.by - b.by)
            .map(({ event }) => event)
          const end = (list: MessageEvent[]) => list.reduce<MessageState>((state, event) => afterEvent(state, event)!, start)
          expect(end(shuffled)).toBe(end(events))
        },
      ),
    )
  })

  it('never goes back from what a report has proven', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom<MessageEvent>(
            'sent',
            'delivered',
            'undelivered',
            'accepted',
            'silence',
            'try-again',
            'claim',
            'refused',
            'take-back',
            'hold',
          ),
        ),
        (events) => {
          let state: MessageState = 'accepted'
          let delivered = false
          for (const event of events) {
            state = afterEvent(state, event) ?? state
            delivered ||= event === 'delivered'
            expect(state === 'delivered').toBe(delivered)
            expect(MESSAGE_STATES).toContain(state)
          }
        },
      ),
    )
  })

  it('lets taking back and claiming win only once', () => {
    expect(afterEvent('taken-back', 'claim')).toBeNull()
    expect(afterEvent('handing-over', 'take-back')).toBeNull()
    expect(afterEvent('accepted', 'claim')).toBeNull()
  })

  it('takes a report that overtook the carrier\'s answer', () => {
    expect(afterEvent(afterEvent('handing-over', 'delivered')!, 'accepted')).toBe('delivered')
  })

  it('has a word for every state, and a reason for every one that went wrong', () => {
    for (const state of MESSAGE_STATES) expect(STATE_WORDS[state]).toBeTruthy()
    for (const state of ['failed', 'undelivered', 'unreported', 'not-known'] as const)
      expect(explain(state, 'no-such-code')).toMatchObject({ why: expect.any(String), then: expect.any(String) })
    expect(explain('delivered', null)).toBeNull()
  })
})

describe('the gate', () => {
  const night = Date.UTC(2026, 10, 25, 12)
  const facts: GateFacts = {
    now: night,
    textingOn: true,
    lineOpen: true,
    numberUsable: true,
    paused: false,
    optedOut: false,
    zones: ['Europe/London'],
    house: EVERY_DAY,
    wish: null,
    lastHeardAt: null,
    meantFor: night,
    scheduled: false,
    nightAllowed: false,
  }

  it('lets a text leave by day', () => {
    expect(mayLeave(facts)).toEqual({ leaves: true })
  })

  it('holds it outside of the hours in which they want to be reached, and never widens those of everybody', () => {
    const noon = { ...facts, now: Date.UTC(2026, 10, 25, 13), meantFor: Date.UTC(2026, 10, 25, 13) }
    const mornings = { from: 8, to: 12 }
    expect(mayLeave({ ...noon, wish: mornings })).toEqual({ leaves: false, reason: 'wish', notBefore: Date.UTC(2026, 10, 26, 8) })
    expect(mayLeave({ ...noon, wish: { from: 12, to: 14 } })).toEqual({ leaves: true })
    expect(mayLeave({ ...noon, wish: mornings, nightAllowed: true })).toEqual({ leaves: true })
    expect(mayLeave({ ...noon, wish: mornings, lastHeardAt: noon.now - 60_000 })).toEqual({ leaves: true })
    const six = Date.UTC(2026, 10, 25, 6)
    expect(mayLeave({ ...facts, now: six, meantFor: six, wish: { from: 0, to: 24 } })).toMatchObject({ reason: 'night' })
  })

  it('holds it at night, until the first hour allowed', () => {
    expect(mayLeave({ ...facts, zones: ['Pacific/Honolulu'] })).toEqual({
      leaves: false,
      reason: 'night',
      notBefore: Date.UTC(2026, 10, 25, 18),
    })
    expect(mayLeave({ ...facts, zones: [] })).toMatchObject({ reason: 'zone-unknown' })
  })

  it('opens at night for an answer within the hour, and for a person\'s word', () => {
    const asleep = { ...facts, zones: ['Pacific/Honolulu'] }
    expect(mayLeave({ ...asleep, lastHeardAt: night - ANSWER_WELCOME_FOR })).toEqual({ leaves: true })
    expect(mayLeave({ ...asleep, lastHeardAt: night - ANSWER_WELCOME_FOR - 1 })).toMatchObject({ leaves: false })
    expect(mayLeave({ ...asleep, nightAllowed: true })).toEqual({ leaves: true })
  })

  it('holds what is more than a quarter of an hour late for the moment it was meant for, and asks again', () => {
    expect(mayLeave({ ...facts, scheduled: true, meantFor: night - LATE_AFTER })).toEqual({ leaves: true })
    expect(mayLeave({ ...facts, scheduled: true, meantFor: night - LATE_AFTER - 1, nightAllowed: true })).toEqual({
      leaves: false,
      reason: 'late',
      notBefore: null,
    })
  })

  it('lets what was to leave when it was written wait for its turn, and holds it once that was half a day ago', () => {
    expect(mayLeave({ ...facts, meantFor: night - 3_600_000 })).toEqual({ leaves: true })
    expect(mayLeave({ ...facts, meantFor: night - STALE_AFTER })).toEqual({ leaves: true })
    expect(mayLeave({ ...facts, meantFor: night - STALE_AFTER - 1, nightAllowed: true })).toEqual({
      leaves: false,
      reason: 'late',
      notBefore: null,
    })
  })

  it('is not shut by a clock that has gone back', () => {
    expect(mayLeave({ ...facts, meantFor: night + 3_600_000 })).toEqual({ leaves: true })
  })

  it('never opens for an opted-out number, whatever else holds', () => {
    fc.assert(
      fc.property(
        fc.record({
          now: fc.integer({ min: 0, max: 4e12 }),
          textingOn: fc.boolean(),
          lineOpen: fc.boolean(),
          numberUsable: fc.boolean(),
          paused: fc.boolean(),
          zones: fc.subarray(['Europe/London', 'Pacific/Honolulu']),
          house: fc.constant(EVERY_DAY),
          wish: fc.constantFrom(null, { from: 8, to: 12 }),
          lastHeardAt: fc.option(fc.integer({ min: 0, max: 4e12 })),
          meantFor: fc.integer({ min: 0, max: 4e12 }),
          scheduled: fc.boolean(),
          nightAllowed: fc.boolean(),
        }),
        (some) => {
          expect(mayLeave({ ...some, optedOut: true })).toEqual({ leaves: false, reason: 'opted-out', notBefore: null })
        },
      ),
    )
  })

  it.each([
    ['textingOn', 'texting-off'],
    ['lineOpen', 'line-closed'],
    ['numberUsable', 'number-unusable'],
  ] as const)('needs %s', (fact, reason) => {
    expect(mayLeave({ ...facts, [fact]: false })).toMatchObject({ leaves: false, reason })
  })

  it('lets one of a paused bulk text wait, however late it gets', () => {
    expect(mayLeave({ ...facts, paused: true, meantFor: 0 })).toEqual({ leaves: false, reason: 'paused', notBefore: null })
  })
})
