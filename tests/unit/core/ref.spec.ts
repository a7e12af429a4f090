import fc from 'fast-check'
import { newRef, readRef, showRef } from '~~/core/message/ref'

const ALPHABET = [...'0123456789ABCDEFGHJKMNPQRSTVWXYZ']
const bits = fc.integer({ min: 0, max: 2 ** 32 - 1 })
const ref = fc.infiniteStream(bits).map(stream => newRef(() => stream.next().value as number))

describe('a reference', () => {
  it('is eight characters that can be said, and is read again however it is written', () => {
    fc.assert(fc.property(ref, (one) => {
      expect(one).toMatch(/^[0-9A-HJKMNP-TV-Z]{8}$/)
      for (const typed of [one, showRef(one), one.toLowerCase(), ` ${showRef(one)} `, one.replaceAll('0', 'O').replaceAll('1', 'l')])
        expect(readRef(typed)).toEqual({ ok: true, ref: one })
    }))
  })

  it('is found mistyped when one character is wrong, or two that stand together have changed places', () => {
    fc.assert(fc.property(ref, fc.nat(7), fc.constantFrom(...ALPHABET), (one, place, other) => {
      if (one[place] !== other)
        expect(readRef(showRef(one.slice(0, place) + other + one.slice(place + 1)))).toEqual({ ok: false, reason: 'mistyped' })
      const [a, b] = [one[place]!, one[place + 1]]
      if (b && a !== b)
        expect(readRef(showRef(one.slice(0, place) + b + a + one.slice(place + 2)))).toEqual({ ok: false, reason: 'mistyped' })
    }), { numRuns: 2_000 })
  })

  // Douglas Crockford, "Base 32", check symbols: the number modulo 37. Worked by hand: 32 + 5 = 37, and 37 modulo 37 is 0
  it('is checked by the number modulo 37', () => {
    expect(readRef('0000-0150')).toEqual({ ok: true, ref: '00000150' })
    expect(readRef('0000-0151')).toEqual({ ok: false, reason: 'mistyped' })
    expect(readRef('0000-001U')).toEqual({ ok: false, reason: 'mistyped' })
  })

  it.each(['merchant', 'Honolulu', '80855501', 'Iris Holm', '', '4K7P-2M9', '4K7P-2M9X1'])('is not seen in %j', (typed) => {
    expect(readRef(typed)).toEqual({ ok: false, reason: 'no-ref' })
  })
})
