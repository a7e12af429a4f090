import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { shapeOf, TESTS, type Condition, type Conditions, type ConditionKind, type Test } from '~~/core/conditions/conditions'
import { judge } from '~~/core/conditions/judge'
import { dayAt } from '~~/core/hours/days'
import { zoneRules } from '~~/core/hours/zones'
import { sql } from 'drizzle-orm'
import { ask, tx } from '~~/server/db/door'
import { contact, customField, numberState, phone, record } from '~~/server/db/schema'
import { ownFields } from '~~/server/records/fields'
import { indexSortedFields } from '~~/server/records/sorted-fields'
import { removeView, saveView } from '~~/server/records/views'
import { chosenBy, countRecords, listRecords } from '~~/server/records/list'
import { useDatabase } from '../../support/database'
import { columnsOf } from '~~/shared/columns'
import { MODULES } from '~~/shared/modules'
import { DAY, makeFirm, makeLead, makeThing, stageOf, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await tx(database => database.insert(customField).values([
    { id: uuid(), module: 'lead', key: 'fleet', label: 'Fleet', kind: 'number', example: '2', position: 0 },
    { id: uuid(), module: 'lead', key: 'trial', label: 'Trial starts', kind: 'date', example: '2026-12-03', position: 1 },
    { id: uuid(), module: 'lead', key: 'o\'dd', label: 'Odd', kind: 'yes-no', example: 'yes', position: 2 },
  ]))
})

const query = (values: object) => ({
  module: 'lead' as const,
  sort: 'name',
  direction: 'up' as const,
  words: '',
  where: '',
  page: 1,
  ...values,
})
const names = async (values: object, who = firm.ada) => (await listRecords(who, query(values), DAY)).rows.map(row => row.name.split(' ')[0])

describe('lists', () => {
  it('sort names as people do, filter by words and by number however typed, and show what one may see', async () => {
    await makeLead(firm.ada, { firstName: 'Zoe', lastName: 'Sortable' }, '(503) 555-0144')
    await makeLead(firm.ada, { firstName: 'ada', lastName: 'Sortable' })
    await makeLead(firm.ada, { firstName: 'Émile', lastName: 'Sortable' })
    expect(await names({ words: 'sortable' })).toEqual(['ada', 'Émile', 'Zoe'])
    expect(await names({ words: 'sortable', direction: 'down' })).toEqual(['Zoe', 'Émile', 'ada'])
    expect(await names({ words: 'zo sort' })).toEqual(['Zoe'])
    expect(await names({ words: '503.555.0144' })).toEqual(['Zoe'])
    expect(await names({ words: '100%' })).toEqual([])
    expect(await names({ words: 'sortable' }, firm.noor)).toEqual([])
  })

  it('come in pages that together hold everybody once', async () => {
    for (let i = 0; i < 60; i++) await makeLead(firm.mika, { firstName: `Page ${i}`, lastName: 'Turner' })
    const pages = await Promise.all([1, 2, 3].map(page => listRecords(firm.ada, query({ words: 'turner', page }), DAY)))
    expect(pages.map(page => page.rows.length)).toEqual([50, 10, 0])
    expect(new Set(pages.flatMap(page => page.rows.map(row => row.id))).size).toBe(60)
  })

  it('sort by any column either way, with what is empty last', async () => {
    await makeLead(firm.ada, { firstName: 'Low', lastName: 'Order', city: 'Austin', tags: ['a'], fields: { fleet: 9 } })
    await makeLead(firm.ada, { firstName: 'None', lastName: 'Order' })
    await makeLead(firm.ada, { firstName: 'High', lastName: 'Order', city: 'Tucson', tags: ['b'], fields: { fleet: 10 } })
    for (const sort of ['city', 'tags', 'own.fleet']) {
      expect([sort, await names({ words: 'order', sort }), await names({ words: 'order', sort, direction: 'down' })].flat()).toEqual([
        sort,
        'Low',
        'High',
        'None',
        'High',
        'Low',
        'None',
      ])
    }
    for (const sort of [
      'company',
      'stage',
      'phone',
      'owner',
      'last-contact',
      'title',
      'mail',
      'street',
      'postcode',
      'region',
      'country',
      'opted-out',
      'made',
      'own.trial',
      'own.o\'dd',
    ]) {
      expect((await names({ words: 'order', sort })).length).toBe(3)
    }
  })

  it('walk page by page in the very order in which they are taken out whole, by every column of every module', async () => {
    const [companies, stages] = [
      await Promise.all(['Zeta', 'alpha'].map(name => makeThing(firm.ada, 'company', { name }))),
      [stageOf('Leads', 'New'), stageOf('Leads', 'Trial'), null],
    ]
    const cities = ['Hilo', 'hilo', null, 'Kona', null]
    await tx(async (database) => {
      const rows = Array.from({ length: 130 }, (_, i) => ({
        id: uuid(),
        module: 'lead' as const,
        name: `Walker ${i % 7}`,
        title: cities[i % 5],
        city: cities[i % 5],
        mail: i % 3 ? `w${i % 4}@pannier.example` : null,
        stageId: stages[i % 3],
        companyId: companies[i % 4] ?? null,
        ownerId: [firm.ada, firm.mika][i % 2]!.id,
        teamId: firm.ada.teamIds[0]!,
        madeAt: DAY,
        tags: i % 3 ? [`t${i % 4}`] : [],
        fields: i % 2 ? { fleet: i % 9 } : {},
      }))
      await database.insert(record).values(rows)
      await database
        .insert(contact)
        .values(
          rows
            .filter((_, i) => i % 4 > 0)
            .map(({ id }, i) => ({ recordId: id, module: 'lead' as const, at: new Date(DAY.getTime() - (i % 11) * 1_000) })),
        )
      const numbers = rows
        .filter((_, i) => i % 3 > 0)
        .map(({ id }, i) => ({
          id: uuid(),
          recordId: id,
          position: 0,
          label: 'mobile',
          typed: 'x',
          e164: `+1808555${String(2_000 + (i % 40)).padStart(4, '0')}`,
          kind: 'mobile' as const,
        }))
      await database.insert(phone).values(numbers)
      await database.insert(numberState).values(numbers.slice(0, 9).map(({ e164 }) => ({ e164, texts: 'refused' as const })))
    })
    for (const module of MODULES) {
      for (const { key: sort } of columnsOf(module, await ownFields())) {
        for (const direction of ['up', 'down'] as const) {
          const asked = query({ module, sort, direction, words: module === 'lead' ? 'walker' : '' })
          const { from, where, order } = await chosenBy(firm.ada, asked, DAY)
          const { rows: whole } = await ask<{ id: string }>(sql`select r.id from ${from} where ${where} order by ${order}`)
          const pages = await Promise.all((module === 'lead' ? [1, 2, 3, 4] : [1]).map(page => listRecords(firm.ada, { ...asked, page }, DAY)))
          expect({ module, sort, direction, ids: pages.flatMap(page => page.rows.map(({ id }) => id)) }).toEqual({
            module,
            sort,
            direction,
            ids: whole.slice(0, pages.length * 50).map(({ id }) => id),
          })
        }
      }
    }
  }, 60_000)

  it('sort by an own field through an index, as long as a kept list is sorted by it', async () => {
    const indexes = async () => {
      const { rows } = await ask<{ made: string }>(
        sql`select indexdef as made from pg_indexes where starts_with(indexname, 'sorted_own_') and indexdef like '%fleet%'`,
      )
      return rows.map(({ made }) => made)
    }
    const kept = { id: uuid(), module: 'lead' as const, name: 'By fleet', columns: ['name'], where: '', sort: 'own.fleet', shared: false }
    await saveView(firm.ada, { ...kept, direction: 'down' }, DAY)
    expect(await indexes()).toEqual([expect.stringContaining('WHERE (module = \'lead\'::text)')])
    await Promise.all([saveView(firm.ada, { ...kept, direction: 'up' }, DAY), indexSortedFields()])
    expect(await indexes()).toHaveLength(1)
    await removeView(firm.ada, kept.id)
    await indexSortedFields()
    expect(await indexes()).toEqual([])
  })

  it.each([
    [{ sort: 'own.nothing' }, 'sort'],
    [{ where: 'not json' }, 'where'],
    [{ where: '{"match":"all","of":[{"field":"salary","test":"empty"}]}' }, 'where.of.0'],
  ])('say what cannot be asked: %j', async (values, field) => {
    await expect(listRecords(firm.ada, query(values), DAY)).rejects.toMatchObject({
      details: { status: 422, fields: { [field]: expect.any(String) } },
    })
  })
})

describe('conditions in SQL', () => {
  const zone = zoneRules('America/Los_Angeles')!
  const today = { day: dayAt(zone, DAY.getTime()), zone }
  const KINDS: Record<string, ConditionKind> = {
    'name': 'words',
    'city': 'words',
    'stage': 'one',
    'tags': 'many',
    'own.fleet': 'number',
    'own.trial': 'day',
    'last-contact': 'instant',
    'own.o\'dd': 'yes-no',
  }
  const CITIES = ['Hilo', 'hilo', 'Kona%', 'St. Paul', '']
  const DAYS = ['2026-11-20', '2026-11-24', '2026-11-25', '2026-11-26', '2026-12-02']
  const TAGS = ['bakery', 'north, or so', '{odd}"']

  const row = fc.record({
    'name': fc.constantFrom('Ann', 'Bo_b', 'Cy\\d'),
    'city': fc.option(fc.constantFrom(...CITIES)),
    'stage': fc.option(fc.constantFrom(stageOf('Leads', 'New'), stageOf('Leads', 'Trial'))),
    'tags': fc.subarray(TAGS),
    'own.fleet': fc.option(fc.constantFrom(-2, 0, 2.5, 4)),
    'own.trial': fc.option(fc.constantFrom(...DAYS)),
    'last-contact': fc.option(
      fc.constantFrom(...DAYS.map(day => Date.parse(`${day}T08:00:00Z`) - 1), ...DAYS.map(day => Date.parse(`${day}T08:00:00Z`))),
    ),
    'own.o\'dd': fc.boolean(),
  })
  const valueFor = (test: Test, kind: ConditionKind, field: string): fc.Arbitrary<Condition['value']> => {
    switch (shapeOf(test, kind)) {
      case 'nothing':
        return fc.constant(undefined)
      case 'number':
        return fc.constantFrom(-2, 0, 2.5, 3)
      case 'days':
        return fc.constantFrom(0, 1, 5, 7)
      case 'day':
        return fc.constantFrom(...DAYS)
      case 'choices':
        return fc.subarray(field === 'tags' ? TAGS : ['New', 'Trial', 'Offer'].map(name => stageOf('Leads', name)), { minLength: 1 })
      case 'words':
        return fc.constantFrom('hilo', 'a', '_', '%', '\\', 'St. Paul')
    }
  }
  const condition: fc.Arbitrary<Condition> = fc
    .constantFrom(...Object.keys(KINDS))
    .chain(field =>
      fc
        .constantFrom(...TESTS[KINDS[field]!])
        .chain(test => valueFor(test, KINDS[field]!, field).map(value => ({ field, test, ...(value !== undefined && { value }) }))),
    )
  const conditions: fc.Arbitrary<Conditions> = fc.record({
    match: fc.constantFrom('all', 'any'),
    of: fc.array(
      fc.oneof(
        { weight: 4, arbitrary: condition },
        {
          weight: 1,
          arbitrary: fc.record({ match: fc.constantFrom('all', 'any'), of: fc.array(condition, { minLength: 1, maxLength: 3 }) }),
        },
      ),
      { maxLength: 3 },
    ),
  }) as fc.Arbitrary<Conditions>

  it('hold for the same records as in core', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { minLength: 1, maxLength: 8 }),
        fc.array(conditions, { minLength: 4, maxLength: 8 }),
        async (rows, asked) => {
          const mark = uuid()
          const ids = rows.map(() => uuid())
          await tx(database =>
            database.insert(record).values(
              rows.map((one, i) => ({
                id: ids[i]!,
                module: 'lead' as const,
                name: one.name,
                title: mark,
                city: one.city,
                stageId: one.stage,
                tags: one.tags,
                ownerId: firm.ada.id,
                teamId: firm.ada.teamIds[0]!,
                madeAt: DAY,
                street: String(i),
                fields: { 'fleet': one['own.fleet'], 'trial': one['own.trial'], 'o\'dd': one['own.o\'dd'] },
              })),
            ),
          )
          const contacts = rows.flatMap((one, i) =>
            one['last-contact'] === null ? [] : [{ recordId: ids[i]!, module: 'lead' as const, at: new Date(one['last-contact']) }],
          )
          if (contacts.length > 0) await tx(database => database.insert(contact).values(contacts))
          for (const wanted of asked) {
            const where: Conditions = { match: 'all', of: [{ field: 'title', test: 'is', value: mark }, wanted] }
            const found = await listRecords(firm.ada, query({ where: JSON.stringify(where), sort: 'street' }), DAY)
            expect({ wanted, found: found.rows.map(one => Number(one.street)) }).toEqual({
              wanted,
              found: rows.flatMap((one, i) => (judge(wanted, one, field => KINDS[field]!, today) ? [i] : [])),
            })
            expect(await countRecords(firm.ada, query({ where: JSON.stringify(where) }), DAY)).toEqual({ total: found.rows.length })
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('know who has opted out and whose number it is', async () => {
    const lead = await makeLead(firm.ada, { firstName: 'Opted', lastName: 'Outis' })
    await tx(database => database.execute(`insert into number_state (e164, texts) values ('${lead.e164}', 'refused')`))
    const one = (test: Test, field = 'opted-out', value?: unknown) =>
      names({ words: 'outis', where: JSON.stringify({ match: 'all', of: [{ field, test, value }] }) })
    expect([await one('yes'), await one('no')]).toEqual([['Opted'], []])
    expect([await one('one-of', 'owner', [firm.ada.id]), await one('one-of', 'owner', [firm.mika.id])]).toEqual([['Opted'], []])
  })
})
