import fc from 'fast-check'
import { LONGEST_WISH, readIntent } from '~~/core/consent/intent'
import { fieldKey } from '~~/core/fields/key'
import { valueIn } from '~~/core/fields/own'
import { harmlessCell } from '~~/core/formats/csv-cell'
import { readVCards } from '~~/core/formats/read-vcard'
import { fillTemplate } from '~~/core/template/fill'
import { clockIn } from '../../support/clocks'

/** How many times as long one takes as the other, measured anew while it is past the limit: machines are noisy, growth is not. */
function ratio(limit: number, work: () => void, baseline: () => void): number {
  let least = Infinity
  for (let measured = 0; measured < 5 && least >= limit; measured++) least = Math.min(least, ratioOnce(work, baseline))
  return least
}

/** Of the quickest of several tries of each, in turns. */
function ratioOnce(work: () => void, baseline: () => void): number {
  const quickest = [work, baseline].map(() => Infinity)
  for (let tries = 0; tries < 8; tries++) {
    for (const [place, one] of [work, baseline].entries()) {
      const begun = performance.now()
      one()
      quickest[place] = Math.min(quickest[place]!, performance.now() - begun)
    }
  }
  return quickest[0]! / Math.max(quickest[1]!, 0.05)
}

describe('what somebody sends to keep us busy', () => {
  const ATTACKS = [
    'remove me ',
    'stop texting ',
    'why ',
    'do not text me a ',
    'take me a b c ',
    'no more of the ',
    'please ',
    '-',
    'ﷺ',
    '\u0301',
  ]

  it.each(ATTACKS)('a text of “%s” and digits without end costs no more than one of the longest length', (fragment) => {
    const attack = fragment.repeat(Math.ceil(20_000 / fragment.length)) + '7'.repeat(20_000)
    const shorter = attack.slice(0, LONGEST_WISH)
    expect(ratio(6, () => readIntent(attack), () => readIntent(shorter))).toBeLessThan(6)
    expect(readIntent(attack)).toBe(readIntent(shorter))
  })

  it.each(['remove me ', 'stop texting me ', 'leave me alone '])(
    'four times as many after “%s” take about four times as long, not sixteen times',
    (fragment) => {
      const of = (length: number) => (fragment + '7'.repeat(length)).slice(0, length)
      const times = (length: number) => () => {
        for (let i = 0; i < 200; i++) readIntent(of(length))
      }
      expect(ratio(10, times(LONGEST_WISH), times(LONGEST_WISH / 4))).toBeLessThan(10)
    },
  )

  it('still hears a wish in the words it reads', () => {
    expect(readIntent('please remove me 555 0142')).toBe('maybe-stop')
    expect(readIntent('Remove me, please!!!')).toBe('maybe-stop')
    expect(readIntent('remove me from the group chat about lunch')).toBe('maybe-stop')
    expect(readIntent('remove meat')).toBe('none')
  })

  it.each<[string, (lines: number) => string]>([
    [
      'soft line ends',
      lines => `BEGIN:VCARD\r\nVERSION:2.1\r\nNOTE;ENCODING=QUOTED-PRINTABLE:${'abcdefgh=\r\n'.repeat(lines)}\r\nEND:VCARD\r\n`,
    ],
    ['folded lines', lines => `BEGIN:VCARD\r\nNOTE:${'abcdefgh\r\n '.repeat(lines)}\r\nEND:VCARD\r\n`],
    ['the name of an encoding, again and again', lines => `BEGIN:VCARD\r\n${'QUOTED-PRINTABLE;'.repeat(lines)}=\r\nEND:VCARD\r\n`],
    ['bytes', lines => `BEGIN:VCARD\r\nNOTE;ENCODING=QUOTED-PRINTABLE:${'=C3=A9=XY'.repeat(lines)}\r\nEND:VCARD\r\n`],
    ['escapes', lines => `BEGIN:VCARD\r\nN:${'\\n\\;;'.repeat(lines)}\r\nEND:VCARD\r\n`],
  ])('a card of %s takes as long as it is long', (_, card) => {
    // eight times as many: what grows with the square would take sixty-four times as long
    const [some, many] = [card(5_000), card(40_000)]
    expect(
      ratio(
        40,
        () => readVCards(many),
        () => readVCards(some),
      ),
    ).toBeLessThan(40)
    expect(readVCards(some).rows).toHaveLength(1)
  })

  it('the longest template of filters, over the longest value, comes out the same every time', () => {
    const filters = ' | upcase | downcase'.repeat(240)
    const worst = `{{ person.note${filters} }}`
    expect(worst.length).toBeLessThan(5_000)
    const values = { person: { note: 'ß'.repeat(10_000) } }
    const results = new Set(Array.from({ length: 5 }, () => JSON.stringify(fillTemplate(worst, values, clockIn('America/Denver')))))
    expect(results.size).toBe(1)
  })

  it('245 amounts in one template are written in the time of a moment', () => {
    const amounts = '{{ 99999999 | money }}'.repeat(220)
    const words = 'Ninety-nine million dollars. '.repeat(150)
    const fill = (source: string) => () => void fillTemplate(source, { person: {} }, clockIn('America/Denver'))
    expect(fillTemplate(amounts, { person: {} }, clockIn('America/Denver'))).toMatchObject({ ok: true })
    expect(ratio(250, fill(amounts), fill(words))).toBeLessThan(250)
  })
})

describe('names that every object has by itself', () => {
  it('are no keys of fields', () => {
    expect(fieldKey('Constructor', [])).toBe('constructor_2')
    expect(fieldKey('Constructor', ['constructor_2'])).toBe('constructor_3')
    expect(fieldKey('toString', [])).toBe('tostring')
  })

  it('are in no map that does not hold them', () => {
    expect(valueIn({}, 'constructor')).toBeUndefined()
    expect(valueIn({ constructor: 'Lund' }, 'constructor')).toBe('Lund')
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.getOwnPropertyNames(Object.prototype)),
        key => valueIn({} as Record<string, unknown>, key) === undefined,
      ),
    )
  })
})

describe('a cell', () => {
  it.each(['=1+1', '＝1+1', '+1+1', '＋1+1', '-1+cmd', '－1+1', '−1+1', '@SUM(A1)', '＠SUM(A1)', '\t=1', '\r=1'])(
    'that a spreadsheet would compute is a word: %j',
    (cell) => {
      expect(harmlessCell(cell)).toBe(`'${cell}`)
    },
  )

  it.each(['+1 808 555 0142', '-3', 'a=b', '1+1', ''])('that is none stays as it is: %j', (cell) => {
    expect(harmlessCell(cell)).toBe(cell)
  })
})
