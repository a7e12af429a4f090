import fc from 'fast-check'
import { fieldKey } from '~~/core/fields/key'
import { readFieldValue } from '~~/core/fields/value'
import { FIELD_KINDS, type FieldKind } from '~~/core/template/fields'

describe('the value of a field', () => {
  it.each<[FieldKind, unknown, unknown]>([
    ['text', '  wide box ', 'wide box'],
    ['text', '', null],
    ['text', null, null],
    ['number', ' 1,204.5 ', 1204.5],
    ['number', 24, 24],
    ['number', '-3', -3],
    ['money', '$ 640', 640],
    ['money', '12.50', 12.5],
    ['money', '£1,000', 1000],
    ['date', '2026-12-03', '2026-12-03'],
    ['time', '9:05', '09:05'],
    ['yes-no', 'Yes', true],
    ['yes-no', false, false],
    ['yes-no', '', null],
    ['mail', 'iris@holm.example', 'iris@holm.example'],
    ['link', 'pannier.example/racks', 'https://pannier.example/racks'],
    ['phone', '(808) 555-0142', '+18085550142'],
  ])('%s %j is %j', (kind, input, value) => {
    expect(readFieldValue({ kind }, input, 'US')).toEqual({ ok: true, value })
  })

  it.each<[FieldKind, unknown]>([
    ['number', 'many'],
    ['number', '1,2'],
    ['number', 'Infinity'],
    ['number', '0x10'],
    ['money', '12.505'],
    ['date', '3 December'],
    ['date', '2026-02-30'],
    ['time', '24:00'],
    ['yes-no', 'perhaps'],
    ['mail', 'iris at holm'],
    ['link', 'not a page'],
    ['link', 'javascript:alert(1)'],
    ['phone', 'ask'],
    ['text', {}],
    ['text', 'a'.repeat(501)],
  ])('%s cannot be %j, and says why', (kind, input) => {
    expect(readFieldValue({ kind }, input, 'US')).toEqual({ ok: false, reason: expect.stringMatching(/^[A-Z].*\.$/) })
  })

  it('is one of the choices, in their own spelling', () => {
    const field = { kind: 'choice' as const, options: ['Website form', 'Market stall'] }
    expect(readFieldValue(field, 'market STALL')).toEqual({ ok: true, value: 'Market stall' })
    expect(readFieldValue(field, 'Radio')).toEqual({ ok: false, reason: 'Choose one of Website form, Market stall.' })
  })

  it('read again is the same, and nothing makes it throw', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FIELD_KINDS), fc.oneof(fc.string(), fc.double(), fc.boolean(), fc.anything()), (kind, input) => {
        const first = readFieldValue({ kind, options: ['a', 'B'] }, input, 'US')
        if (first.ok) expect(readFieldValue({ kind, options: ['a', 'B'] }, first.value, 'US')).toEqual(first)
      }),
      { numRuns: 1_000 },
    )
  })
})

describe('the key of a new field', () => {
  it.each([
    ['Bikes wanted (max.)', 'bikes_wanted_max'],
    ['Größe', 'gro_e'],
    ['2nd rider', 'field_2nd_rider'],
    ['???', 'field'],
  ])('%j is %s', (label, key) => {
    expect(fieldKey(label, [])).toBe(key)
  })

  it('is new and fit for a template, whatever the label', () => {
    fc.assert(fc.property(fc.string(), fc.array(fc.constantFrom('field', 'a', 'a_2')), (label, taken) => {
      const key = fieldKey(label, taken)
      expect(key).toMatch(/^[a-z][a-z0-9_]*$/)
      expect(taken).not.toContain(key)
    }))
  })
})
