import fc from 'fast-check'
import { PROPOSED_FOR, proposeLine, type ProposableLine } from '~~/core/lines/proposed'

const line = (id: string, e164: string, more: Partial<ProposableLine> = {}): ProposableLine =>
  ({ id, e164, mine: false, private: false, ...more })
const team = line('team', '+16125550104')
const near = line('near', '+18085550104')
const own = line('own', '+18085550190', { mine: true })
const secret = line('secret', '+18085550191', { mine: true, private: true })
const far = line('far', '+15035550190', { mine: true })
const HONOLULU = '+18085550142'

describe('the line that is proposed', () => {
  it.each([
    ['used-last', [team, near, own], 'team'],
    ['own-area', [team, near, far, own], undefined],
    ['team-area', [team, near, far, secret], undefined],
    ['team', [team, far, secret], undefined],
    ['own', [far, secret], undefined],
  ] as const)('is %s', (why, lines, last) => {
    expect(proposeLine([...lines], HONOLULU, last)).toMatchObject({ why })
  })

  it('of several of mine is the nearest', () => {
    expect(proposeLine([far, secret], HONOLULU)?.line.id).toBe('secret')
  })

  it('is none of mine by area where numbers tell none', () => {
    const [bristol, mine] = [line('bristol', '+447700900118'), line('mine', '+447700900171', { mine: true })]
    expect(proposeLine([mine, bristol], '+447700900161')).toMatchObject({ line: bristol, why: 'team' })
  })

  it('is one of those that there are, whatever there is, and does not hang on their order but among equals', () => {
    const e164s = fc.constantFrom('+18085550104', '+15035550104', '+447700900118')
    const any = fc.record({ id: fc.uuid(), e164: e164s, mine: fc.boolean(), private: fc.boolean() })
    fc.assert(fc.property(fc.uniqueArray(any, { selector: ({ id }) => id }), fc.option(fc.constant(HONOLULU)), (lines, e164) => {
      const proposed = proposeLine(lines, e164)
      expect(proposed === null).toBe(lines.length === 0)
      if (!proposed) return
      expect(lines).toContain(proposed.line)
      expect(proposeLine([...lines].reverse(), e164)!.why).toBe(proposed.why)
      expect(PROPOSED_FOR).toContain(proposed.why)
    }))
  })
})
