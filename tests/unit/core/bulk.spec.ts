import fc from 'fast-check'
import { pickLine, pickNumber, type NumberFacts, type NumberWay } from '~~/core/bulk/fate'
import { afterStep, BULK_TEXT_STATES } from '~~/core/bulk/states'
import { mayGo } from '~~/core/plan/pace'

const number = (values: Partial<NumberFacts> = {}): NumberFacts => ({
  phoneId: 'a', label: '', e164: '+18085550101', country: 'US', kind: 'mobile', unusable: false, optedOut: false, openWish: false, lastHeardAt: null, usualLineId: null,
  ...values,
})
const line = (id: string, e164: string, country = 'US', shared = true) => ({ id, e164, country, shared })

describe('the number on which somebody is texted', () => {
  it.each<[string, Partial<NumberFacts>[], NumberWay, string]>([
    ['a mobile before any other', [{ phoneId: 'a', kind: 'unknown' }, { phoneId: 'b' }], 'mobile', 'b'],
    ['of several the first on the record', [{ phoneId: 'a' }, { phoneId: 'b' }], 'mobile', 'a'],
    ['the one from which they answered last, if so wanted', [{ phoneId: 'a' }, { phoneId: 'b', kind: 'unknown', lastHeardAt: 5 }, { phoneId: 'c', lastHeardAt: 4 }], 'answered', 'b'],
    ['the first, where they never answered', [{ phoneId: 'a', kind: 'unknown' }, { phoneId: 'b' }], 'answered', 'a'],
    ['the one with the label, if so wanted', [{ phoneId: 'a' }, { phoneId: 'b', kind: 'unknown', label: 'Desk' }], 'label', 'b'],
    ['a mobile, where none has the label', [{ phoneId: 'a', kind: 'unknown', label: 'Home' }, { phoneId: 'b' }], 'label', 'b'],
    ['never a landline', [{ phoneId: 'a', kind: 'landline' }, { phoneId: 'b', kind: 'unknown' }], 'mobile', 'b'],
    ['none that is out of service', [{ phoneId: 'a', unusable: true }, { phoneId: 'b' }], 'mobile', 'b'],
  ])('is %s', (_, numbers, way, phoneId) => {
    expect(pickNumber(numbers.map(number), { way, label: ' desk ' })).toMatchObject({ phoneId })
  })

  it('is the one that was chosen for them alone, where a text reaches it, and past no opt-out', () => {
    const numbers = [{ phoneId: 'a' }, { phoneId: 'b', kind: 'unknown' as const }, { phoneId: 'c', kind: 'landline' as const }].map(number)
    expect(pickNumber(numbers, { way: 'mobile' }, 'b')).toMatchObject({ phoneId: 'b' })
    expect(pickNumber(numbers, { way: 'mobile' }, 'c')).toMatchObject({ phoneId: 'a' })
    expect(pickNumber([...numbers, number({ optedOut: true })], { way: 'mobile' }, 'b')).toBe('opted-out')
  })

  it.each<[string, Partial<NumberFacts>[]]>([
    ['no-number', []],
    ['not-usable', [{ e164: null }, { unusable: true }]],
    ['landline', [{ kind: 'landline' }]],
    ['opted-out', [{ optedOut: true }]],
    // they meant us, and not the telephone
    ['opted-out', [{ phoneId: 'a', optedOut: true, kind: 'landline' }, { phoneId: 'b' }]],
    ['open-wish', [{ openWish: true }]],
  ])('is none: %s', (reason, numbers) => {
    expect(pickNumber(numbers.map(number), { way: 'mobile' })).toBe(reason)
  })
})

describe('the line over which somebody is texted', () => {
  const lines = [line('portland', '+15035550118'), line('minneapolis', '+16125550104'), line('own', '+18085550100', 'US', false), line('halifax', '+19025550120', 'CA')]
  it.each<[string, Partial<NumberFacts>, string | undefined]>([
    ['the usual one', { usualLineId: 'minneapolis' }, 'minneapolis'],
    ['the nearest of a team’s, where there is no usual one', { e164: '+16125550177' }, 'minneapolis'],
    ['the nearest, where the usual one does not text there', { e164: '+19025550177', country: 'CA', usualLineId: 'portland' }, 'halifax'],
    ['none in another country', { e164: '+447700900123', country: 'GB' }, undefined],
  ])('is %s', (_, values, id) => {
    expect(pickLine(lines, { ...number(values), e164: values.e164 ?? '+18085550101' })?.id).toBe(id)
  })
})

describe('a line by chance', () => {
  const lines = [line('portland', '+15035550118'), line('minneapolis', '+16125550104'), line('halifax', '+19025550120', 'CA')]
  const picked = (drawn: number, values: Partial<NumberFacts> = {}) => pickLine(lines, { ...number(values), e164: '+18085550101' }, drawn)?.id

  it('is any of those in their country, each with its share, and never instead of the usual one', () => {
    expect([0, 0.49, 0.5, 0.999].map(drawn => picked(drawn))).toEqual(['portland', 'portland', 'minneapolis', 'minneapolis'])
    expect(picked(0.999, { usualLineId: 'portland' })).toBe('portland')
    expect(picked(0.5, { country: 'GB' })).toBeUndefined()
  })
})

describe('a bulk text', () => {
  it('is started only once it is checked, and goes on only after a pause or a stop', () => {
    const may = (step: Parameters<typeof afterStep>[1]) => BULK_TEXT_STATES.filter(state => afterStep(state, step) !== null)
    expect({ write: may('write'), check: may('check'), start: may('start'), pause: may('pause'), goOn: may('go-on'), stop: may('stop') }).toEqual({
      write: ['draft', 'checking', 'checked'],
      check: ['draft', 'checked'],
      start: ['checked'],
      pause: ['running'],
      goOn: ['paused', 'stopped'],
      stop: ['running', 'paused'],
    })
  })
})

describe('the pace of a line', () => {
  it('is never over its rate for longer than two seconds, whenever somebody looks', () => {
    fc.assert(fc.property(
      fc.constantFrom(50, 100, 1_000, 1_200, 7_500),
      fc.array(fc.integer({ min: 1, max: 9_000 }), { minLength: 1, maxLength: 60 }),
      (everyMs, waits) => {
        let [now, last] = [1_000_000, null as number | null]
        const looks: { at: number, count: number }[] = []
        for (const wait of waits) {
          now += wait
          const gone = mayGo(last, everyMs, 1_000, now)
          looks.push({ at: now, count: gone.count })
          last = gone.last
        }
        // in any stretch of time no more than its rate allows, and what two seconds allow besides
        const besides = Math.max(1, Math.floor(2_000 / everyMs))
        const over = looks.flatMap((from, i) => looks.slice(i).filter((to, j) =>
          looks.slice(i, i + j + 1).reduce((sum, { count }) => sum + count, 0) > Math.floor((to.at - from.at) / everyMs) + besides + 1))
        expect(over).toEqual([])
      },
    ))
  })

  it('keeps up with its rate where somebody looks often enough', () => {
    let [now, last, count] = [0, null as number | null, 0]
    for (; now < 600_000; now += 317) {
      const gone = mayGo(last, 1_000, 5, now)
      count += gone.count
      last = gone.last
    }
    expect(count).toBeGreaterThanOrEqual(599)
    expect(mayGo(null, 1_000, 0, 5)).toEqual({ count: 0, last: null })
  })
})
