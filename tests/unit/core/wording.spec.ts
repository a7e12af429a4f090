import fc from 'fast-check'
import { cautions, wrongLink, type CautionFacts } from '~~/core/message/cautions'
import { exampleAnswers, fillInFields, readAnswers, type FillIn } from '~~/core/template/fill-ins'
import { fillTemplate } from '~~/core/template/fill'
import { toLiquid } from '~~/core/template/pieces'
import { toFields } from '~~/core/template/unfill'
import { measureText } from '~~/core/text/measure'
import { swapFor, swapsIn } from '~~/core/text/swaps'
import { clockIn } from '../../support/clocks'

const NOW = Date.UTC(2026, 10, 25, 18)
const facts: CautionFacts = { text: 'Hi Iris, Ada here.', now: NOW, sender: ['Ada', 'Pannier & Post'], last: null, lastHeardAt: null }
const kinds = (values: Partial<CautionFacts>) => cautions({ ...facts, ...values }).map(({ kind }) => kind)

describe('before a text goes', () => {
  it('a first one that does not say who is writing is pointed out, but not an answer', () => {
    expect(kinds({})).toEqual([])
    expect(kinds({ text: 'Hi Iris, when may I ring?' })).toEqual(['unnamed'])
    expect(kinds({ text: 'Greetings from PANNIER & POST' })).toEqual([])
    expect(kinds({ text: 'Hi Iris', lastHeardAt: NOW - 60_000 })).toEqual([])
    expect(kinds({ text: 'Hi Iris', last: { at: NOW - 86_400_000, by: 'Mika', mine: false } })).toEqual([])
    expect(kinds({ text: '  ' })).toEqual([])
  })

  it('a second one within minutes of a colleague’s is pointed out, with whose it was', () => {
    expect(cautions({ ...facts, last: { at: NOW - 4 * 60_000, by: 'Mika', mine: false } })).toEqual([
      { kind: 'just-texted', words: 'Mika has texted this number 4 min ago.' },
    ])
    expect(kinds({ last: { at: NOW - 4 * 60_000, by: 'Ada', mine: true } })).toEqual([])
    expect(kinds({ last: { at: NOW - 11 * 60_000, by: 'Mika', mine: false } })).toEqual([])
  })

  it.each([
    'see https://pannier.example/trial.',
    'www.pannier.example',
    'https://pannier.example/a_(b)',
    'no link, only http',
    'at (https://pannier.example/a)',
  ])('%j has no link that cannot be right', text => expect(wrongLink(text)).toBeNull())
  it.each([
    ['see https:// pannier.example', /blank/],
    ['www. pannier.example', /blank/],
    ['https://pannier.example/(a', /bracket/],
    ['https:/pannier.example', /nowhere/],
    ['http://pannier', /nowhere/],
    ['https://pannier..example', /nowhere/],
  ])('%j has', (text, reason) => expect(wrongLink(text)).toMatch(reason))
})

describe('fill-ins', () => {
  const fillIns: FillIn[] = [
    { key: 'when', label: 'When', kind: 'time', example: '10:30', options: [] },
    { key: 'bike', label: 'Bike', kind: 'choice', example: '', options: ['Long-john', 'Trike'] },
    { key: 'price', label: 'Price', kind: 'number', example: '640', options: [] },
  ]

  it('are read as their kind wants them, each with its reason', () => {
    expect(readAnswers(fillIns, { when: '9:05', bike: 'trike', price: '1,200' })).toEqual({
      ok: true,
      values: { when: '09:05', bike: 'Trike', price: 1200 },
      typed: { price: '1,200' },
    })
    expect(readAnswers(fillIns, { when: 'noon', bike: 'Scooter', price: '' })).toEqual({
      ok: false,
      problems: { when: expect.any(String), bike: expect.any(String), price: 'Fill in “Price”.' },
    })
  })

  it.each([['1.234,50 €', 1234.5], ['1 234,50', 1234.5], ['1’234.50', 1234.5], ['£1,200', 1200], ['12,5', 12.5], ['1.250', 1.25]])(
    'stay as they were typed: %s, and are computed with as %d',
    (written, amount) => {
      const read = readAnswers([fillIns[2]!], { price: written })
      expect(read).toEqual({ ok: true, values: { price: amount }, typed: { price: written } })
      const values = { 'fill_in': { price: amount }, 'fill-in as typed': { price: written } }
      expect(fillTemplate('For {{ fill_in.price }} a month.', values, clockIn('UTC'))).toEqual({ ok: true, text: `For ${written} a month.` })
      expect(fillTemplate('{% if fill_in.price > 1000 %}Dear{% else %}Cheap{% endif %}', values, clockIn('UTC')))
        .toEqual({ ok: true, text: amount > 1000 ? 'Dear' : 'Cheap' })
    },
  )

  it('have an example for every preview', () => {
    expect(exampleAnswers(fillIns)).toEqual({ when: '10:30', bike: 'Long-john', price: '640' })
    expect(fillInFields(fillIns).map(({ path, group }) => [path, group])).toContainEqual(['fill_in.when', 'fill_in'])
  })
})

describe('a text turned back into a template', () => {
  it('says the fields where their values stood as whole words', () => {
    expect(
      toLiquid(
        toFields('Hi Iris, Ada from Pannier & Post. Irises? Ada.', [
          { path: 'person.first_name', value: 'Iris' },
          { path: 'sender.first_name', value: 'Ada' },
          { path: 'firm.name', value: 'Pannier & Post' },
        ]),
      ),
    ).toBe('Hi {{ person.first_name }}, {{ sender.first_name }} from {{ firm.name }}. Irises? {{ sender.first_name }}.')
    expect(
      toLiquid(
        toFields('Iris Holm', [
          { path: 'person.first_name', value: 'Iris' },
          { path: 'person.name', value: 'Iris Holm' },
        ]),
      ),
    ).toBe('{{ person.name }}')
  })

  it('is the same text again for the same person', () => {
    const text = fc
      .array(fc.constantFrom('Iris', 'Holm', 'Iris Holm', ' ', ', ', '{{', '.', 'Irisa', '(a+b)'), { minLength: 1, maxLength: 12 })
      .map(words => words.join(''))
      .filter(one => one.trim() !== '')
    fc.assert(fc.property(text, (one) => {
      const source = toLiquid(toFields(one, [{ path: 'person.first_name', value: 'Iris' }, { path: 'person.name', value: 'Iris Holm' }]))
      expect(fillTemplate(source, { person: { first_name: 'Iris', name: 'Iris Holm' } }, clockIn('UTC'))).toEqual({ ok: true, text: one })
    }), { numRuns: 500 })
  })
})

describe('a swap for a dear character', () => {
  it.each([
    ['’', '\''],
    ['“', '"'],
    ['—', '-'],
    ['…', '...'],
    ['\u00A0', ' '],
    ['ê', 'e'],
    ['ł', null],
    ['ş', 's'],
    ['😀', null],
    ['猫', null],
  ])('of %j is %j', (char, swap) => expect(swapFor(char)).toBe(swap))

  it('fits the default alphabet, whatever it stands for, and only for what does not', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }), (text) => {
      for (const { char, swap } of swapsIn(text)) {
        expect(measureText(char).encoding).toBe('UCS-2')
        if (swap) expect(measureText(swap).encoding).toBe('GSM-7')
      }
    }))
  })
})
