import type { Readable } from 'node:stream'
import Papa from 'papaparse'
import VCard from 'vcf'
import { v7 as uuid } from 'uuid'
import { readRow } from '~~/core/import/read-row'
import { guessMatching } from '~~/core/import/targets'
import { tx } from '~~/server/db/door'
import { audit, phone, record } from '~~/server/db/schema'
import { exportRecords } from '~~/server/records/export'
import { markNotTheirs } from '~~/server/records/wrong-number'
import { importTargets } from '~~/shared/import'
import { exportQuery } from '~~/shared/schemas/list'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  await makeLead(firm.ada, { firstName: 'Ann "Quick"', lastName: 'Out, of', city: '=1+1', tags: ['bakery', 'north'] }, '808 555 0181')
  await makeLead(firm.ada, { firstName: 'Ben', lastName: 'Out\nof', mail: 'ben@post.example' }, '808 555 0182')
  await makeLead(firm.mika, { firstName: 'Cy', lastName: 'Out of' }, 'ask at the desk')
})

const text = async (stream: Readable) => (await stream.toArray()).join('')
const take = async (who: Firm['ada'], values: object) =>
  text(
    await exportRecords(
      who,
      exportQuery.validateSync({
        module: 'lead',
        sort: 'name',
        direction: 'up',
        words: 'out of',
        columns: 'name,city,phone,tags,owner,last-contact',
        format: 'csv',
        ...values,
      }),
      DAY,
    ),
  )

describe('a list as CSV', () => {
  it('is read back by an independent library (papaparse), with nothing a spreadsheet would run', async () => {
    const csv = await take(firm.odile, {})
    expect(csv.startsWith('\uFEFFFirst name,Last name,City,Mobile,Tags,Owner,Last contact\r\n')).toBe(true)
    expect(Papa.parse(csv.slice(1), { skipEmptyLines: true }).data.slice(1)).toEqual([
      ['Ann "Quick"', 'Out, of', '\'=1+1', '+18085550181', 'bakery, north', 'Ada Lund', ''],
      ['Ben', 'Out\nof', '', '+18085550182', '', 'Ada Lund', ''],
      ['Cy', 'Out of', '', 'ask at the desk', '', 'Mika Sand', ''],
    ])
  })

  it('holds what one may take out: a rep their own, a lead their people\'s, and nobody another\'s', async () => {
    const names = async (who: Firm['ada']) =>
      Papa.parse<string[]>((await take(who, {})).slice(1), { skipEmptyLines: true })
        .data.slice(1)
        .map(row => row[0])
    expect((await names(firm.ada)).length).toBe(2)
    expect((await names(firm.mika))).toEqual(['Cy'])
    expect((await names(firm.odile)).length).toBe(3)
    expect((await names(firm.noor))).toEqual([])
  })

  it('keeps conditions and order over many pieces, and is noted in the audit log', async () => {
    await tx(database =>
      database
        .insert(record)
        .values(
          Array.from({ length: 450 }, (_, i) => ({
            id: uuid(),
            module: 'lead' as const,
            name: `Row ${String(i).padStart(3, '0')}`,
            city: 'Piecetown',
            ownerId: firm.ada.id,
            teamId: firm.ada.teamIds[0]!,
            madeAt: DAY,
          })),
        ),
    )
    const csv = await take(firm.ada, {
      words: '',
      columns: 'name',
      direction: 'down',
      where: JSON.stringify({ match: 'all', of: [{ field: 'city', test: 'is', value: 'piecetown' }] }),
    })
    const rows = csv.trim().split('\r\n').slice(1)
    expect(rows).toEqual(Array.from({ length: 450 }, (_, i) => `Row ${String(449 - i).padStart(3, '0')},`))
    expect((await tx(database => database.select().from(audit))).map(entry => entry.details)).toContainEqual({
      module: 'lead',
      format: 'csv',
      count: 450,
    })
  })

  it('has every number, and comes in again as it went out, but for a number that is somebody else\'s', async () => {
    const { recordId, e164 } = await makeLead(firm.ada, { firstName: 'Dee', lastName: 'Round Trip', mail: 'dee@post.example' })
    await markNotTheirs(firm.ada, recordId, e164, DAY)
    const stored = (id: string, position: number, label: string, typed: string) =>
      ({ id: uuid(), recordId: id, position, label, typed, e164: typed.startsWith('+') ? typed : null, country: 'US', kind: 'mobile' as const, unusable: typed.startsWith('+') ? null : 'not-a-number' as const })
    await tx(database => database.insert(phone).values([
      stored(recordId, 1, 'mobile', '+18085550186'), stored(recordId, 2, 'work', 'ask at the desk'), stored(recordId, 3, 'mobile', '+18085550187'),
    ]))
    const csv = await take(firm.ada, { words: 'round trip', columns: 'name,phone,mail' })
    const [headings, ...rows] = Papa.parse<string[]>(csv.slice(1), { skipEmptyLines: true }).data
    expect(headings).toEqual(['First name', 'Last name', 'Mobile', 'Mobile 2', 'Work', 'Mail address'])
    expect(rows).toEqual([['Dee', 'Round Trip', '+18085550186', '+18085550187', 'ask at the desk', 'dee@post.example']])

    const targets = importTargets('lead', { own: [], stages: [], pipelines: [] })
    const matching = guessMatching(headings!, rows, targets, {}, 'US')
    const reading = readRow(rows[0]!, { people: true, headings: headings!, matching, targets, country: 'US', dayOrders: [] })
    expect(reading).toMatchObject({ ok: true, row: {
      name: 'Dee Round Trip',
      columns: { mail: 'dee@post.example' },
      phones: [['mobile', '+18085550186'], ['mobile', '+18085550187'], ['work', null]].map(([label, e164]) => ({ label, e164 })),
      leftOut: [],
    } })
  })

  it('says which column there is not', async () => {
    await expect(take(firm.ada, { columns: 'name,salary' })).rejects.toMatchObject({
      details: { status: 422, fields: { columns: expect.stringContaining('salary') } },
    })
  })
})

describe('a list as vCards', () => {
  it('is read back by an independent library (vcf), with the numbers that can be used', async () => {
    const cards = VCard.parse(await take(firm.odile, { format: 'vcf' }))
    expect(cards.map(card => card.get('tel')?.valueOf())).toEqual(['tel:+18085550181', 'tel:+18085550182', undefined])
    expect(cards[1]!.get('email').valueOf()).toBe('ben@post.example')
  })
})
