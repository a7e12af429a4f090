import fc from 'fast-check'
import { fillTemplate } from '~~/core/template/fill'
import { toLiquid, toPieces, type Format, type Piece } from '~~/core/template/pieces'
import { TEMPLATES } from '~~/demo/templates'
import { clockIn } from '../../support/clocks'

const words = fc.string({ unit: fc.constantFrom(...'ab {}%"\'|\n é€😀-'), minLength: 1, maxLength: 12 })
const path = fc.constantFrom('person.first_name', 'company.name', 'fill_in.when', 'deal.value')
const field = fc.record({
  kind: fc.constant('field' as const),
  path,
  format: fc.option(fc.constantFrom<Format>('first_word', 'upcase', 'money', 'date:day', 'date:%A %-d %B')),
  standIn: fc.option(fc.string({ unit: fc.constantFrom(...'there |\'é€,.-') })),
})
const liquid = fc
  .constantFrom('{% if company.name %}', '{% endif %}', '{{ person.name | downcase }}', '{{- person.name -}}')
  .map(source => ({ kind: 'liquid' as const, source }))

/** As an editor holds them: neighbouring words are one. */
const document = fc.array(fc.oneof(words.map(text => ({ kind: 'words' as const, words: text })), field, liquid), { maxLength: 12 })
  .map(pieces => pieces.reduce<Piece[]>((all, piece) => {
    const last = all.at(-1)
    if (piece.kind === 'words' && last?.kind === 'words') all[all.length - 1] = { kind: 'words', words: last.words + piece.words }
    else all.push(piece)
    return all
  }, []))

describe('a template in pieces', () => {
  it('is the same after it was stored', () => {
    fc.assert(fc.property(document, pieces => expect(toPieces(toLiquid(pieces))).toEqual(pieces)), { numRuns: 2_000 })
  })

  it('says the words as they are, whatever braces stand in them', () => {
    fc.assert(fc.property(words.filter(one => one.trim() !== ''), (text) => {
      const source = toLiquid([{ kind: 'words', words: text }, { kind: 'field', path: 'person.first_name', format: null, standIn: null }])
      expect(fillTemplate(source, { person: { first_name: 'Iris' } }, clockIn('UTC'))).toEqual({ ok: true, text: `${text}Iris` })
    }))
  })

  it('is what people write, and back without loss', () => {
    expect(
      toPieces('Hi {{person.first_name|default:\'there\'}}, see you {{ person.trial_day | date: "long" | default: "soon" }}.'),
    ).toEqual([
      { kind: 'words', words: 'Hi ' },
      { kind: 'field', path: 'person.first_name', format: null, standIn: 'there' },
      { kind: 'words', words: ', see you ' },
      { kind: 'field', path: 'person.trial_day', format: 'date:long', standIn: 'soon' },
      { kind: 'words', words: '.' },
    ])
    for (const { body } of TEMPLATES) expect(toLiquid(toPieces(body))).toBe(body)
  })

  it.each([
    '{{ person.name | default: other }}',
    '{{ 5 }}',
    '{{ person.name | default: "a" | upcase }}',
    '{{ person["name"] }}',
    '{% raw %}',
    '{{ }}',
  ])('leaves %s as it is written', (source) => {
    expect(toPieces(source)).toEqual([{ kind: 'liquid', source }])
    expect(toLiquid(toPieces(source))).toBe(source)
  })

  it('gives up double quotes in a stand-in that has both kinds, for Liquid has no escapes', () => {
    expect(toLiquid([{ kind: 'field', path: 'person.name', format: null, standIn: 'the "boss\'s"' }])).toBe(
      '{{ person.name | default: "the ”boss\'s”" }}',
    )
  })
})
