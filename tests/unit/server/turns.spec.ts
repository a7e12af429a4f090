import { Turns } from '~~/server/db/embedded/turns'

const [IDLE, INSIDE, FAILED] = ['I', 'T', 'E'].map(state => new Uint8Array([0x5A, 0, 0, 0, 5, state.charCodeAt(0)]))

describe('turns on the one session', () => {
  it('go in the order in which they are asked for', () => {
    const turns = new Turns<string>()
    turns.ask(1, 'a')
    turns.ask(2, 'b')
    expect(turns.next()).toEqual({ channel: 1, request: 'a' })
    turns.answered(1, IDLE!)
    expect(turns.next()?.request).toBe('b')
    expect(turns.next()).toBeNull()
  })

  it.each([['a transaction', INSIDE], ['a failed one', FAILED]])('stay with the connection that is inside of %s', (_, state) => {
    const turns = new Turns<string>()
    turns.ask(1, 'begin')
    turns.next()
    turns.answered(1, state!)
    turns.ask(2, 'meanwhile')
    turns.ask(null, 'copy')
    expect(turns.next()).toBeNull()
    turns.ask(1, 'commit')
    expect(turns.next()?.request).toBe('commit')
    turns.answered(1, IDLE!)
    expect([turns.next()?.request, turns.next()?.request]).toEqual(['meanwhile', 'copy'])
  })

  it('are free again once a connection has gone, which says if it left a transaction open', () => {
    const turns = new Turns<string>()
    turns.answered(1, INSIDE!)
    turns.ask(2, 'waiting')
    expect(turns.left(2)).toBe(false)
    expect(turns.next()).toBeNull()
    expect(turns.left(1)).toBe(true)
    expect(turns.next()?.request).toBe('waiting')
  })
})
