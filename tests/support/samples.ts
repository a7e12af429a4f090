import fc from 'fast-check'
import { isSchema, type AnySchema, type ISchema } from 'yup'
import type { Named } from '~~/shared/schemas/common'
import { freshRef } from '~~/server/texting/refs'
import type { Things } from './everything'

interface Described {
  type: string
  oneOf: unknown[]
  tests: { name?: string, params?: Record<string, unknown> }[]
  fields?: Record<string, Described>
  innerType?: Described
  meta?: { names?: Named | null | ((value: unknown) => unknown) }
  nullable: boolean
  optional: boolean
}

export const describe = (schema: ISchema<unknown>): Described => (isSchema(schema) ? (schema as AnySchema).describe() : schema) as Described

/** Where ids stand in what a schema takes, and what each names. */
export function idPlaces(described: Described, path: string[] = []): { path: string[], names: Named | null | undefined }[] {
  if (described.type === 'object') return Object.entries(described.fields ?? {}).flatMap(([key, field]) => idPlaces(field, [...path, key]))
  if (described.type === 'array') return described.innerType ? idPlaces(described.innerType, [...path, '0']) : []
  const isId = described.tests.some(({ name, params }) => name === 'matches' && String(params?.regex).startsWith('/^[0-9a-f]{8}(-'))
  return isId ? [{ path, names: described.meta?.names as Named | null | undefined }] : []
}

const paramOf = (described: Described, test: string, param: string) =>
  described.tests.find(({ name }) => name === test)?.params?.[param] as number | undefined

/** Words that fit under their usual names, where a schema asks for more than it can say. */
const wordsNamed = (key: string, things: Things): string | undefined =>
  ({
    tones: '12#',
    key: `record ${things.record}`,
    ref: freshRef(),
    title: 'Call',
    day: '2026-12-03',
    time: '09:30',
    wallTime: '2026-12-03T09:30',
    zone: 'America/Denver',
    country: 'US',
    typed: '+1 808 555 0142',
    number: '+1 808 555 0142',
    label: 'mobile',
    letter: 'q',
    where: '',
    sort: 'name',
    mail: 'ada@pannier.example',
    postcode: '96720',
    region: 'HI',
    opens: '09:00',
    closes: '17:00',
    name: 'Bikes',
    firstName: 'Iris',
  })[key]

/** What a schema takes, as far as it says: most of these are valid. */
export function fitting(described: Described, things: Things, key = ''): fc.Arbitrary<unknown> {
  const named
    = described.type === 'string'
      && described.oneOf.length === 0
      && typeof described.meta?.names !== 'string'
      && described.meta?.names !== null
      ? wordsNamed(key, things)
      : undefined
  const value
    = named === undefined
      ? fittingOne(described, things)
      : fc.oneof({ weight: 5, arbitrary: fc.constant(named) }, { weight: 1, arbitrary: fittingOne(described, things) })
  return described.optional || described.nullable
    ? fc.oneof({ weight: 4, arbitrary: value }, { weight: 1, arbitrary: fc.constant(described.nullable ? null : undefined) })
    : value
}

function fittingOne(described: Described, things: Things): fc.Arbitrary<unknown> {
  const names = described.meta?.names
  if (described.oneOf.length > 0) return fc.constantFrom(...described.oneOf)
  switch (described.type) {
    case 'object':
      return fc.record(Object.fromEntries(Object.entries(described.fields ?? {}).map(([key, field]) => [key, fitting(field, things, key)])))
    case 'array':
      return fc.array(described.innerType ? fitting(described.innerType, things) : fc.constant('name'), {
        minLength: paramOf(described, 'min', 'min') ?? 0,
        maxLength: 3,
      })
    case 'number':
      return fc.integer({ min: paramOf(described, 'min', 'min') ?? 0, max: paramOf(described, 'max', 'max') ?? 1_000_000 })
    case 'boolean':
      return fc.boolean()
    case 'date':
      return fc.date({ noInvalidDate: true }).map(date => date.toISOString())
    case 'mixed':
      return fc.oneof(
        fc.string(),
        fc.constant([['Iris', '+1 808 555 0142']]),
        fc.record({
          kind: fc.constantFrom('text', 'stage', 'no-calls', 'add-tag'),
          tag: fc.string(),
          templateId: fc.constant(things.template),
        }),
      )
    default:
      if (names === null) return fc.uuid({ version: 7 })
      if (typeof names === 'string') return fc.constant(things[names])
      return fc.oneof(
        fc.constantFrom(
          'name',
          'up',
          '2026-12-03',
          '2026-12-03T09:30',
          '09:30',
          'America/Denver',
          'a',
          'Iris',
          'new',
          `record ${things.record}`,
          '+18085550142',
          '4K7P2M9X',
          JSON.stringify({ match: 'all', of: [{ field: 'name', test: 'contains', value: 'a' }] }),
        ),
        fc.string({ maxLength: 30 }),
      )
  }
}

/** What no form sends. */
const HOSTILE = fc.oneof(
  fc.constantFrom<unknown>(
    '',
    ' ',
    '\0',
    'a\0b',
    '\uD800',
    'x\uDFFF',
    '__proto__',
    'constructor',
    'toString',
    '{{ person.name }}',
    '{{',
    '{%',
    '%',
    '\\',
    '\'; drop table record; --',
    '‮evil',
    '=1+1',
    'a'.repeat(60_000),
    '9'.repeat(400),
    'NaN',
    'Infinity',
    '1e400',
    '-0',
    '0x10',
    '99999999999999999999',
    '-271821-04-20T00:00:00.000Z',
    '+275760-09-13T00:00:00.000Z',
    '0000-00-00',
    '9999-12-31T23:59',
    '2026-02-30',
    '25:61',
    'Mars/Olympus',
    '[]',
    '{"match":"all","of":[null]}',
    '{"match":"all","of":{}}',
    '{"match":"all","of":[{"field":"name","test":"contains"}]}',
    '{"match":"all","of":[{"field":"__proto__","test":"is","value":1}]}',
    '{"match":"any","of":[{"field":"made","test":"before","value":"9999999-01-01"}]}',
    null,
    true,
    false,
    0,
    -1,
    1.5,
    2 ** 31,
    2 ** 53,
    -(2 ** 63),
    1e308,
    [],
    {},
    [[]],
    [null],
    [undefined],
    [{}],
    { toString: 'x' },
    { constructor: null },
    { length: 1e9 },
    { then: 'x' },
    [[[[[[]]]]]],
  ),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.double(),
  fc.jsonValue({ maxDepth: 3 }),
)

/** What a schema takes, with one thing in it, or all of it, that no form sends. */
export function twisted(described: Described, things: Things): fc.Arbitrary<unknown> {
  if (described.type !== 'object') return HOSTILE
  const keys = Object.keys(described.fields ?? {})
  return fc.oneof(
    {
      weight: 6,
      arbitrary: fc
        .tuple(fitting(described, things), fc.constantFrom(...keys, 'unknown'), HOSTILE)
        .map(([value, key, bad]) => ({ ...(value as object), [key]: bad })),
    },
    {
      weight: 4,
      arbitrary: fc.record(Object.fromEntries(keys.map(key => [key, fc.oneof(HOSTILE, fitting(described.fields![key]!, things, key))]))),
    },
    { weight: 1, arbitrary: HOSTILE },
  )
}
