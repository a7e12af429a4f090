import type { Readable } from 'node:stream'
import Papa from 'papaparse'
import VCard from 'vcf'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { audit, record } from '~~/server/db/schema'
import { exportRecords } from '~~/server/records/export'
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
    expect(csv.startsWith('\uFEFFName,City,Number,Tags,Owner,Last contact\r\n')).toBe(true)
    expect(Papa.parse(csv.slice(1), { skipEmptyLines: true }).data.slice(1)).toEqual([
      ['Ann "Quick" Out, of', '\'=1+1', '+18085550181', 'bakery, north', 'Ada Lund', ''],
      ['Ben Out\nof', '', '+18085550182', '', 'Ada Lund', ''],
      ['Cy Out of', '', 'ask at the desk', '', 'Mika Sand', ''],
    ])
  })

  it('holds what one may take out: a rep their own, a lead their people\'s, and nobody another\'s', async () => {
    const names = async (who: Firm['ada']) =>
      Papa.parse<string[]>((await take(who, {})).slice(1), { skipEmptyLines: true })
        .data.slice(1)
        .map(row => row[0])
    expect((await names(firm.ada)).length).toBe(2)
    expect((await names(firm.mika))).toEqual(['Cy Out of'])
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
    expect(rows).toEqual(Array.from({ length: 450 }, (_, i) => `Row ${String(449 - i).padStart(3, '0')}`))
    expect((await tx(database => database.select().from(audit))).map(entry => entry.details)).toContainEqual({
      module: 'lead',
      format: 'csv',
      count: 450,
    })
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
