import { nextInTurn } from '~~/core/owed/turn'
import fc from 'fast-check'
import { afterEvent, NOTHING_OWED, type Owed, type OwedEvent } from '~~/core/owed/owed'

const after = (...events: OwedEvent[]) => events.reduce(afterEvent, NOTHING_OWED)

describe('what a conversation owes', () => {
  it('is owed since the first text that nobody has answered, and settled by an answer or by saying that none is needed', () => {
    expect(after({ kind: 'text-in', at: 5 }, { kind: 'text-in', at: 9 })).toEqual({ since: 5, why: 'text', returnsAt: null })
    for (const kind of ['answered', 'nothing-needed'] as const)
      expect(after({ kind: 'text-in', at: 5 }, { kind, at: 6 })).toEqual(NOTHING_OWED)
  })

  it('is settled by nobody who opens or reads it, nor by an answer of Plauder’s own', () => {
    for (const kind of ['opened', 'read', 'automatic'] as const)
      expect(after({ kind: 'text-in', at: 5 }, { kind, at: 6 })).toMatchObject({ since: 5 })
  })

  it('is owed by whoever it is handed to, since when it was owed', () => {
    expect(after({ kind: 'text-in', at: 5 }, { kind: 'handed', at: 8 })).toEqual({ since: 5, why: 'text', returnsAt: null })
    expect(after({ kind: 'handed', at: 8 })).toEqual({ since: 8, why: 'handed', returnsAt: null })
  })

  it('is put back for a moment: not owed until then, owed again then, and at once if somebody writes before', () => {
    const back = [{ kind: 'text-in', at: 5 }, { kind: 'put-back', at: 6, until: 20 }] as const
    expect(after(...back)).toEqual({ since: null, why: null, returnsAt: 20 })
    expect(after(...back, { kind: 'due', at: 19 })).toEqual({ since: null, why: null, returnsAt: 20 })
    expect(after(...back, { kind: 'due', at: 21 })).toEqual({ since: 20, why: 'put-back', returnsAt: null })
    expect(after(...back, { kind: 'text-in', at: 9 })).toEqual({ since: 9, why: 'text', returnsAt: null })
    expect(after(...back, { kind: 'answered', at: 9 }, { kind: 'due', at: 21 })).toEqual(NOTHING_OWED)
  })

  it('is for a call that nobody took as for a text, and for the message that was left once it is there', () => {
    const missed = afterEvent(NOTHING_OWED, { kind: 'missed-call', at: 10 })
    expect(missed).toEqual({ since: 10, why: 'missed-call', returnsAt: null })
    expect(afterEvent(missed, { kind: 'voicemail', at: 10 })).toEqual({ since: 10, why: 'voicemail', returnsAt: null })
    expect(afterEvent(missed, { kind: 'voicemail', at: 20 })).toEqual(missed)
    expect(afterEvent(afterEvent(NOTHING_OWED, { kind: 'text-in', at: 5 }), { kind: 'missed-call', at: 10 })).toMatchObject({ since: 5, why: 'text' })
  })

  it('is settled by a talk, but for what came in while they talked', () => {
    expect(afterEvent({ since: 10, why: 'missed-call', returnsAt: null }, { kind: 'talked', at: 11 })).toEqual(NOTHING_OWED)
    const during = { since: 12, why: 'text' as const, returnsAt: null }
    expect(afterEvent(during, { kind: 'talked', at: 11 })).toEqual(during)
  })

  it('says why if and only if it is owed, and never waits for a moment while it is owed for a text', () => {
    const kinds = fc.constantFrom('text-in', 'missed-call', 'voicemail', 'talked', 'answered', 'nothing-needed', 'handed', 'due', 'opened', 'read', 'automatic', 'put-back')
    const event = fc.tuple(kinds, fc.nat(100), fc.option(fc.nat(200))).map(([kind, at, until]) =>
      kind === 'put-back' ? { kind, at, until } : { kind, at } as OwedEvent)
    fc.assert(fc.property(fc.array(event), (events) => {
      let owed: Owed = NOTHING_OWED
      for (const one of events) {
        owed = afterEvent(owed, one as OwedEvent)
        expect(owed.since === null).toBe(owed.why === null)
        if (one.kind === 'text-in') expect(owed).toMatchObject({ returnsAt: null })
        if (one.kind === 'text-in') expect(owed.since).not.toBeNull()
      }
    }))
  })
})

describe('whose turn it is', () => {
  it.each([
    [['a', 'b', 'c'], null, ['a', 'b', 'c'], 'a'],
    [['a', 'b', 'c'], 'a', ['a', 'b', 'c'], 'b'],
    [['a', 'b', 'c'], 'c', ['a', 'b', 'c'], 'a'],
    [['a', 'b', 'c'], 'a', ['a', 'c'], 'c'],
    [['a', 'b', 'c'], 'b', ['b'], 'b'],
    [['a', 'b'], 'gone', ['a', 'b'], 'a'],
    [['a', 'b'], 'a', [], null],
    [[], null, ['a'], null],
  ])('%j after %s of %j: %s', (order, last, there, next) => expect(nextInTurn(order, last, there)).toBe(next))
})
