import fc from 'fast-check'
import { Liquid } from 'liquidjs'
import { checkTemplate, fillTemplate } from '~~/core'
import type { Field } from '~~/core/template/fields'
import { formatDate } from '~~/core/template/dates'
import { TEMPLATE_LIMITS } from '~~/core/template/engine'
import { AMERICAN, clockIn } from '../../support/clocks'

const field = (path: string): Field => ({
  path,
  group: path.split('.')[0] as Field['group'],
  label: path.split('.')[1]!,
  kind: 'text',
  example: '',
})
const lead = ['person.first_name', 'person.bikes', 'person.trial_day', 'sender.first_name', 'firm.name'].map(field)
const candidate = ['person.first_name', 'person.role', 'sender.first_name', 'firm.name'].map(field)
const values = {
  person: { first_name: 'Iris', bikes: null, trial_day: '2026-12-03' },
  sender: { first_name: 'Ada' },
  firm: { name: 'Pannier & Post' },
}
const fill = (source: string, more: object = {}) => fillTemplate(source, { ...values, ...more }, clockIn('Pacific/Honolulu'))

describe('checkTemplate', () => {
  const problems = (source: string) => checkTemplate(source, { lead, candidate })

  it('accepts fields that every module has', () => {
    expect(
      problems('Hi {{ person.first_name | default: "there" }}, {% if person.first_name == blank %}hello{% endif %} {{ firm.name }}'),
    ).toEqual([])
  })

  it('says what is not a field, where, and what may be meant', () => {
    expect(problems('Hi,\n{{ person.frist_name }}')).toEqual([
      { line: 2, column: 4, message: expect.stringContaining('no field “person.frist_name”') },
    ])
    expect(problems('{{ first_name }}')[0]!.message).toContain('Did you mean person.first_name?')
  })

  it('says which module lacks a field', () => {
    expect(problems('{{ person.bikes }}')[0]!.message).toBe(
      '“person.bikes” does not exist for candidate, to which this template belongs too.',
    )
    expect(checkTemplate('{{ person.bikes }}', { lead })).toEqual([])
  })

  it.each([
    ['', /empty/],
    ['{{ person.first_name', /not closed/],
    ['{{ person.first_name | shout }}', /no format “shout”/],
    ['{% include "x" %}', /“include” cannot be used/],
    ['{% render "x" %}', /cannot be used/],
    ['{% layout "x" %}', /cannot be used/],
    ['{% for i in (1..9) %}{% endfor %}', /cannot be used/],
    ['{% assign a = 1 %}', /cannot be used/],
    ['{% if person.first_name %}', /has no end/],
    ['{{ person[0] }}', /named by words/],
    ['a'.repeat(TEMPLATE_LIMITS.length + 1), /is the most/],
    ['{% if person.first_name %}'.repeat(TEMPLATE_LIMITS.nesting + 1), /inside each other/],
    ['{{ firm.name }}'.repeat(TEMPLATE_LIMITS.pieces + 1), /more than/],
  ])('refuses %.40j', (source, message) => {
    expect(problems(source)[0]).toEqual({ line: expect.any(Number), column: expect.any(Number), message: expect.stringMatching(message) })
  })

  it('never throws, whatever is typed', () => {
    const bits = fc.constantFrom(
      '{{',
      '}}',
      '{%',
      '%}',
      ' if ',
      ' endif ',
      'person.first_name',
      '|',
      'default:',
      '"',
      'x',
      '.',
      '[',
      '(',
      '\n',
      'else',
      'case',
    )
    fc.assert(fc.property(fc.array(bits, { maxLength: 30 }).map(b => b.join('')), (source) => {
      expect(Array.isArray(problems(source))).toBe(true)
    }))
  })
})

describe('fillTemplate', () => {
  it('fills fields, stand-ins, formats and conditions', () => {
    expect(
      fill(
        'Hi {{ person.first_name }}, {{ person.bikes | default: "your" }} bikes on {{ person.trial_day | date: "day" }}{% if person.bikes %}!{% else %}.{% endif %}',
      ),
    ).toEqual({ ok: true, text: 'Hi Iris, your bikes on Thu 3 Dec.' })
  })

  it('holds the text back where a field would leave a hole, and says which', () => {
    expect(fill('Hi {{ person.first_name }}, {{ person.bikes }} and {{ person.nickname | upcase }}')).toEqual({
      ok: false,
      problems: [],
      holes: [
        { path: 'person.bikes', line: 1, column: 29 },
        { path: 'person.nickname', line: 1, column: 52 },
      ],
      gapped: 'Hi Iris, ____ and ____',
    })
    expect(fill('{% if true %}{{ person.bikes }}{% endif %}')).toMatchObject({ ok: false, holes: [{ path: 'person.bikes' }] })
    expect(fill('{% if person.bikes %}{{ person.bikes }}{% endif %}Hello')).toEqual({ ok: true, text: 'Hello' })
    expect(fill('{{ person.first_name | default: " " }}', { person: { first_name: '  ' } })).toMatchObject({ ok: false })
    expect(fill('{% if person.bikes %}nobody{% endif %}')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('Nothing is left') }],
    })
  })

  it('gives own properties only', () => {
    for (const path of ['person.constructor', 'person.__proto__', 'person.toString', 'sender.hasOwnProperty']) {
      expect(fill(`{{ ${path} }}`)).toMatchObject({ ok: false, holes: [{ path }] })
    }
  })

  it('leaves markup and other people\'s words as they are', () => {
    expect(fill('{{ person.first_name }}', { person: { first_name: '<b>{{ firm.name }}</b>' } })).toEqual({
      ok: true,
      text: '<b>{{ firm.name }}</b>',
    })
  })

  it('writes what liquidjs alone writes, where nothing is blank', () => {
    const alone = new Liquid()
    const word = fc.stringMatching(/^[A-Za-z0-9 ]{0,8}[a-z]$/)
    const piece = fc.constantFrom(
      'Hi ',
      '{{ person.first_name }}',
      '{{ person.role | upcase }}',
      '{{ person.role | default: "rider" }}',
      '{% if person.role == "rider" %}yes{% else %}no{% endif %}',
      '{{ firm.name | truncate: 6 }}',
      '{% case person.role %}{% when "rider" %}R{% else %}-{% endcase %}',
      '\n',
    )
    fc.assert(fc.property(fc.array(piece, { minLength: 1 }).map(p => `x${p.join('')}`), word, word, (source, first_name, role) => {
      const scope = { person: { first_name, role }, firm: { name: 'Pannier & Post' } }
      expect(fillTemplate(source, scope, clockIn('UTC'))).toEqual({ ok: true, text: alone.parseAndRenderSync(source, scope) })
    }))
  })
})

describe('a hostile template', () => {
  const TOKENS = [
    '{{',
    '}}',
    '{%',
    '%}',
    ' person.first_name ',
    ' if ',
    ' endif ',
    ' case ',
    ' when ',
    ' else ',
    ' raw ',
    ' endraw ',
    ' comment ',
    '| upcase ',
    '| truncate: 1000000000 ',
    '| default: ',
    '"',
    '\'',
    '[0]',
    '..',
    '(1..99999999)',
    ' and ',
    ' or ',
    ' == ',
    '.constructor',
    '.__proto__',
    ' for i in (1..99999999) ',
    ' assign x = ',
    ' include "a" ',
    '%%%%',
    '\n',
    '\u0000',
    '😀',
    'x',
  ]
  const asWell = (source: string) => {
    const filled = fill(source)
    if (filled.ok) return filled.text
    expect(filled.holes.length + filled.problems.length).toBeGreaterThan(0)
    for (const { message, line, column } of filled.problems) expect(message.length > 5 && line >= 1 && column >= 1).toBe(true)
    return null
  }

  it('ends in a text or in an error with its place, whatever it is made of', () => {
    fc.assert(fc.property(fc.array(fc.constantFrom(...TOKENS), { maxLength: 120 }), (tokens) => {
      const text = asWell(tokens.join(''))
      expect(text === null || !text.includes('function')).toBe(true)
    }), { numRuns: 3000 })
  })

  it.each([
    ['endless loops', '{% for i in (1..99999999) %}x{% endfor %}', /cannot be used/],
    ['growing strings', `{{ person.first_name ${'| append: person.first_name '.repeat(100)}}}`, /append/],
    ['deep nesting', `${'{% if true %}'.repeat(60)}x${'{% endif %}'.repeat(60)}`, /inside/],
    ['too many pieces', '{{ firm.name }}'.repeat(301), /more than 300/],
    ['too long a template', 'x'.repeat(5_001), /long|characters/],
    ['other files', '{% include "secret" %}', /cannot be used/],
    ['what code has', '{{ person.constructor.constructor }}', /person.constructor/],
  ])('gets nowhere with %s', (_, source, says) => {
    const filled = fill(source)
    expect(filled).toMatchObject({ ok: false })
    if (!filled.ok)
      expect([...filled.problems.map(({ message }) => message), ...filled.holes.map(({ path }) => path)].join(' ')).toMatch(says)
  })
})

describe('formatDate', () => {
  const thursday = '2026-12-03T17:30:00Z'
  it.each([
    ['day', 'Pacific/Honolulu', 'Thu 3 Dec'],
    ['time', 'Pacific/Honolulu', '7:30'],
    ['time', 'Europe/London', '17:30'],
    ['long', 'Europe/London', 'Thursday 3 December'],
    ['%I.%M %p on %d/%m/%Y', 'Europe/London', '05.30 pm on 03/12/2026'],
    ['100%%', 'UTC', '100%'],
  ])('writes %s in %s as %s', (format, zone, text) => {
    expect(formatDate(thursday, format, clockIn(zone))).toBe(text)
  })

  it.each([['day', 'Thu, Dec 3'], ['long', 'Thursday, December 3'], ['time', '7:30 am'], ['moment', 'Thu, Dec 3, 7:30 am'], ['%-H:%M', '7:30']])(
    'writes %s as the person does: %s',
    (format, text) => {
      expect(formatDate(thursday, format, clockIn('Pacific/Honolulu', AMERICAN))).toBe(text)
    },
  )

  it('keeps a day without a time where it is', () => {
    expect(formatDate('2026-12-03', 'day', clockIn('Pacific/Honolulu'))).toBe('Thu 3 Dec')
  })

  it('refuses what it cannot write', () => {
    expect(() => formatDate('soon', 'day', clockIn('UTC'))).toThrow('“soon” is not a date.')
    expect(() => formatDate('2026-02-30', 'day', clockIn('UTC'))).toThrow('not a day of the calendar')
    expect(() => formatDate(thursday, '%Q', clockIn('UTC'))).toThrow('“%Q” is not a date format')
    expect(() => formatDate(thursday, 'day', clockIn('Mars/Base'))).toThrow('not a time zone')
  })
})
