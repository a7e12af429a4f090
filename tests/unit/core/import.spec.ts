import fc from 'fast-check'
import { fateOf, rowKey, type DuplicateRules, type OnDuplicate } from '~~/core/import/fate'
import { readCountry } from '~~/core/places/countries'
import { dayOrderOf, readDay, readsTwoWays } from '~~/core/import/days'
import { noteOf, readRow, type ImportedRow, type ReadingRules } from '~~/core/import/read-row'
import { guessMatching } from '~~/core/import/targets'
import { importTargets } from '~~/shared/import'

const OWN = [
  { module: 'lead' as const, key: 'trial_day', label: 'Trial starts', kind: 'date' as const, example: '', options: [] },
  { module: 'lead' as const, key: 'budget', label: 'Budget', kind: 'money' as const, example: '', options: [] },
]
const TARGETS = importTargets('lead', {
  own: OWN, stages: ['New', 'Talking', 'Trial', 'Offer', 'Leased'].map(name => ({ name })), pipelines: [],
})

function read(cells: Record<string, string>, rules: Partial<ReadingRules> = {}) {
  const matching = Object.keys(cells).map(key => key.replace(/ \d$/, ''))
  return readRow(Object.values(cells), {
    people: true,
    headings: matching,
    matching,
    targets: TARGETS,
    country: 'US',
    dayOrders: matching.map(() => null),
    ...rules,
  })
}
const row = (...args: Parameters<typeof read>): ImportedRow => {
  const reading = read(...args)
  if (!reading.ok) throw new Error(JSON.stringify(reading.problems))
  return reading.row
}

describe('a row of a file', () => {
  it('becomes a record: names, numbers in the chosen country, tags, own fields', () => {
    expect(
      row(
        {
          'first-name': 'Iris',
          'last-name': 'Holm',
          'phone 1': '(808) 555-0142',
          'phone 2': 'ask reception',
          'tags': 'bakery; north, bakery',
          'own.budget': '1.234,50',
          'country': 'United States',
          'stage': 'talking',
        },
        { headings: ['', '', 'Mobile phone', 'Work', '', '', '', ''] },
      ),
    ).toMatchObject({
      name: 'Iris Holm',
      columns: { 'first-name': 'Iris', 'last-name': 'Holm', 'country': 'US', 'stage': 'Talking' },
      fields: { budget: 1234.5 },
      phones: [
        { label: 'mobile', e164: '+18085550142', kind: 'mobile' },
        { label: 'work', typed: 'ask reception', e164: null, unusable: 'not-a-number' },
      ],
      tags: ['bakery', 'north'],
    })
  })

  it.each([
    ['Iris Holm', { 'first-name': 'Iris', 'last-name': 'Holm' }],
    ['Holm, Iris', { 'first-name': 'Iris', 'last-name': 'Holm' }],
    ['Ana Maria Holm', { 'first-name': 'Ana Maria', 'last-name': 'Holm' }],
    ['Madonna', { 'first-name': 'Madonna' }],
  ])('takes the whole name %j apart', (name, columns) => expect(row({ name }).columns).toEqual(columns))

  it('is called by number or mail address where it has no name, and is refused where it has nothing', () => {
    expect(row({ phone: '808 555 0142' }).name).toBe('808 555 0142')
    expect(row({ mail: 'iris@holm.example' }).name).toBe('iris@holm.example')
    expect(read({ city: 'Hilo' })).toEqual({ ok: false, problems: [{ heading: '', reason: expect.stringMatching(/no name/) }] })
  })

  it('takes numbers of its own country, whatever was chosen', () => {
    expect(row({ 'first-name': 'Kofi', 'phone': '07700 900161', 'country': 'UK' }).phones[0]).toMatchObject({
      e164: '+447700900161',
      country: 'GB',
    })
  })

  it.each([
    ['808 555 0142 / 808 555 0143', ['+18085550142', '+18085550143']],
    ['808 555 0142, 808 555 0143; +44 7700 900810', ['+18085550142', '+18085550143', '+447700900810']],
    ['808 555 0142\n808 555 0143', ['+18085550142', '+18085550143']],
    ['447700900810.0', ['+447700900810']],
    ['\'+447700900810', ['+447700900810']],
    ['00447700900810', ['+447700900810']],
    ['011447700900810', ['+447700900810']],
    ['808/555 0142', ['+18085550142']],
  ])('reads all numbers of a cell that a spreadsheet has written as %j', (cell, e164s) => {
    expect(row({ 'first-name': 'Iris', 'phone': cell }).phones.map(({ e164 }) => e164)).toEqual(e164s)
  })

  it('leaves out each cell that cannot be read, says why, and keeps its words in the note', () => {
    const { leftOut, columns, fields, note } = row({
      'first-name': 'A', 'mail': 'nowhere', 'stage': 'Hired', 'own.trial_day': 'soon', 'country': 'Atlantis', 'note': 'Met at the fair.',
    })
    expect(leftOut).toEqual(['mail', 'stage', 'own.trial_day', 'country'].map(heading => ({
      heading, text: expect.any(String), reason: expect.any(String),
    })))
    expect({ columns, fields }).toEqual({ columns: { 'first-name': 'A' }, fields: {} })
    expect(noteOf({ note, leftOut })).toBe('Met at the fair.\nmail: nowhere\nstage: Hired\nown.trial_day: soon\ncountry: Atlantis')
  })

  it('is refused where it does not say clearly whether they want texts', () => {
    expect(read({ 'first-name': 'A', 'opted-out': 'perhaps' })).toEqual({ ok: false, problems: [{ heading: 'opted-out', reason: expect.any(String) }] })
  })

  it('has the first of its mail addresses, and the others in its note', () => {
    const read = row({ 'mail 1': 'iris@holm.example', 'mail 2': 'IRIS@holm.example', 'mail 3': 'bakery@holm.example' })
    expect(read.columns.mail).toBe('iris@holm.example')
    expect(noteOf(read)).toBe('mail: bakery@holm.example')
  })

  it('is read whatever stands in it, and never throws', () => {
    fc.assert(fc.property(fc.array(fc.string({ unit: 'binary' }), { minLength: TARGETS.length, maxLength: TARGETS.length }), (cells) => {
      const matching = TARGETS.map(({ key }) => key)
      const reading = readRow(cells, { people: true, headings: matching, matching, targets: TARGETS, country: 'US', dayOrders: [] })
      if (reading.ok) expect(reading.row.name).not.toBe('')
      else expect(reading.problems.length).toBeGreaterThan(0)
    }))
  })
})

describe('days', () => {
  it.each([
    ['2026-12-03', 'day-first', '2026-12-03'],
    ['3.12.2026', 'day-first', '2026-12-03'],
    ['3.12.2026', 'month-first', '2026-12-03'],
    ['12/3/26', 'month-first', '2026-12-03'],
    ['03-12-1999', 'day-first', '1999-12-03'],
    ['2026/12/3', 'month-first', '2026-12-03'],
    ['2026-12-03T10:00:00Z', 'day-first', '2026-12-03'],
    ['13/13/2026', 'day-first', null],
    ['30/2/2026', 'day-first', null],
    ['soon', 'day-first', null],
  ] as const)('%s, %s, is %s', (text, order, day) => expect(readDay(text, order)).toBe(day))

  it('tell their order where the figures do', () => {
    expect(dayOrderOf(['3/4/2026', '13/4/2026'])).toBe('day-first')
    expect(dayOrderOf(['3/4/2026', '4/13/2026'])).toBe('month-first')
    expect(dayOrderOf(['3/4/2026', '2026-04-13', ''])).toBeNull()
    expect(readsTwoWays(['4/4/2026', '4.3.2026', '', '3/4/2026'])).toBe('3/4/2026')
    expect(readsTwoWays(['4/4/2026', '2026-04-13'])).toBeUndefined()
  })
})

describe('countries', () => {
  it.each([
    ['US', 'US'],
    ['us', 'US'],
    ['United Kingdom', 'GB'],
    ['uk', 'GB'],
    ['Canada', 'CA'],
    ['U.S.A.', 'US'],
    ['Atlantis', null],
    ['', null],
    ['ZZ', null],
  ])('%j is %s', (text, code) => expect(readCountry(text)).toBe(code))
})

describe('what columns are', () => {
  const guess = (headings: string[], samples: string[][] = [], remembered = {}) =>
    guessMatching(headings, samples, TARGETS, remembered, 'US')

  it('is told by their headings, in several tongues', () => {
    expect(guess(['Given Name', 'SURNAME', 'E-mail', 'Cell Phone', 'Work', 'ZIP', 'Organisation', 'Trial starts', 'Shoe size'])).toEqual([
      'first-name',
      'last-name',
      'mail',
      'phone',
      'phone',
      'postcode',
      'company',
      'own.trial_day',
      null,
    ])
    expect(guess(['Vorname', 'Nachname', 'Prénom', 'Teléfono'])).toEqual(['first-name', 'last-name', null, 'phone'])
  })

  it('is told by what is in them, where the headings are silent', () => {
    expect(
      guess(
        ['A', 'B', 'C'],
        [
          ['Iris', '808 555 0142', 'iris@holm.example'],
          ['Bo', '(902) 555-0161', 'bo@post.example'],
        ],
      ),
    ).toEqual([null, 'phone', 'mail'])
  })

  it('is remembered, left out too, and nothing that takes one column gets two', () => {
    expect(guess(['Nick', 'Mail', 'Other mail'], [['x', 'a@b.example', 'c@d.example']], { nick: 'first-name', mail: null })).toEqual([
      'first-name',
      null,
      'mail',
    ])
    expect(guess(['City', 'Town'])).toEqual(['city', null])
    expect(guessMatching(['Route 2'], [], [{ key: 'own.way', label: 'Route 2', kind: 'text' }], {}, 'US')).toEqual(['own.way'])
    expect(guess(['Mail', 'E-mail', 'Mobile', 'Mobile 2'])).toEqual(['mail', 'mail', 'phone', 'phone'])
  })
})

describe('what becomes of a row', () => {
  const known = {
    number: (e164: string) => (e164 === '+18085550142' ? 'by-number' : undefined),
    mail: (mail: string) => (mail === 'iris@holm.example' ? 'by-mail' : undefined),
    name: (name: string) => (name === 'iris holm' ? 'by-name' : undefined),
  }
  const rules = (number: OnDuplicate, mail: OnDuplicate, name: OnDuplicate): DuplicateRules => ({ number, mail, name })
  const iris = () => row({ 'first-name': 'Iris', 'last-name': 'HOLM', 'phone': '808 555 0142', 'mail': 'Iris@Holm.example' })

  it.each([
    [rules('join', 'join', 'join'), { kind: 'joined', to: 'by-number', by: 'number' }],
    [rules('keep-both', 'leave-out', 'join'), { kind: 'left-out', to: 'by-mail', by: 'mail' }],
    [rules('keep-both', 'keep-both', 'join'), { kind: 'joined', to: 'by-name', by: 'name' }],
    [rules('keep-both', 'keep-both', 'keep-both'), { kind: 'new' }],
  ])('with %j is %j', (duplicates, fate) => expect(fateOf(iris(), known, duplicates)).toEqual(fate))

  it('is known again by what it says, not by how it was written', () => {
    const again = row({ 'mail': 'Iris@Holm.example', 'phone': '+1 (808) 555-0142', 'last-name': 'HOLM', 'first-name': 'Iris' })
    expect(rowKey(again)).toBe(rowKey(iris()))
    expect(rowKey({ ...iris(), note: 'more' })).not.toBe(rowKey(iris()))
  })
})
