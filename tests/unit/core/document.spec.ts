import fc from 'fast-check'
import { fromDocument, toDocument } from '~~/app/editor/document'
import { toLiquid, toPieces } from '~~/core/template/pieces'
import { CUSTOM_FIELDS } from '~~/demo/fields'
import { TEMPLATES } from '~~/demo/templates'
import { checkTemplate } from '~~/core/template/check'
import { fillInFields } from '~~/core/template/fill-ins'
import { builtInFields, templateFieldsOf } from '~~/shared/fields'
import { MODULES } from '~~/shared/modules'

describe('the templates of the demo', () => {
  it.each(
    TEMPLATES.flatMap(({ name, body, earlier = [], modules, fillIns = [] }) =>
      [body, ...earlier].map(wording => ({ name, wording, modules, fillIns })),
    ),
  )('$name may be saved: $wording', ({ wording, modules, fillIns }) => {
    const own = [...MODULES.flatMap(builtInFields), ...CUSTOM_FIELDS]
    expect(
      checkTemplate(
        wording,
        Object.fromEntries(modules.map(module => [module, [...templateFieldsOf(module, own), ...fillInFields(fillIns)]])),
      ),
    ).toEqual([])
  })

  it('are enough to start with', () => {
    expect(TEMPLATES.length).toBeGreaterThanOrEqual(24)
    expect(new Set(TEMPLATES.map(({ name }) => name)).size).toBe(TEMPLATES.length)
  })
})

describe('the editor’s document', () => {
  it('is the same Liquid again, for every template of the demo', () => {
    for (const { body } of TEMPLATES) expect(fromDocument(toDocument(body))).toBe(body)
  })

  it('is the same Liquid again, whatever is written', () => {
    const source = fc
      .array(
        fc.constantFrom(
          'Hi',
          ' ',
          '\n',
          '\n\n',
          '{',
          '{{',
          '%}',
          '{{ person.first_name }}',
          '{{ person.name | default: "there" }}',
          '{{ person.trial_day | date: "day" }}',
          '{% if company.name %}',
          '{% endif %}',
          '€',
          '|',
        ),
        { maxLength: 14 },
      )
      .map(parts => toLiquid(toPieces(parts.join(''))))
    fc.assert(fc.property(source, one => expect(fromDocument(toDocument(one))).toBe(one)), { numRuns: 2_000 })
  })

  it('has a paragraph for every line, empty ones too', () => {
    expect(toDocument('a\n\n{{ person.name }}').content).toEqual([
      { type: 'paragraph', content: [{ type: 'text', text: 'a' }] },
      { type: 'paragraph' },
      { type: 'paragraph', content: [{ type: 'field', attrs: { path: 'person.name', format: null, standIn: null } }] },
    ])
    expect(fromDocument(toDocument(''))).toBe('')
  })
})
