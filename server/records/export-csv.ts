import { sql } from 'drizzle-orm'
import { valueIn } from '~~/core/fields/own'
import { writeCsv } from '~~/core/formats/write-csv'
import { labelOf } from '~~/core/import/read-row'
import type { Column } from '~~/shared/columns'
import { isPersonModule, type Module } from '~~/shared/modules'
import type { RecordRow } from '~~/shared/record'
import { ask, read } from '../db/door'
import { uuidArray } from '../db/instants'
import { phone } from '../db/schema'

type Phone = typeof phone.$inferSelect

/** A column of the file: more than those of the list, for a name has two parts and a record several numbers. */
interface FileColumn { heading: string, of: (row: RecordRow, phones: Phone[]) => string }

/**
 * Rows as CSV (RFC 4180, UTF-8 with a mark at its beginning, by which spreadsheets know it): brought in again, the file makes
 * the same of a person that it was made of. A number that was found to be somebody else's is not in it.
 *
 * @param ids all that the file will hold: they tell how many columns of numbers there are
 */
export async function* csvOf(
  module: Module,
  columns: Column[],
  ids: string[],
  pieces: AsyncIterable<RecordRow[]>,
): AsyncGenerator<string> {
  const fileColumns = (await Promise.all(columns.map(column => columnsFor(module, column, ids)))).flat()
  yield `\uFEFF${writeCsv([fileColumns.map(({ heading }) => heading)])}`
  for await (const rows of pieces) {
    const phones = await phonesOf(rows)
    yield writeCsv(rows.map(row => fileColumns.map(({ of }) => of(row, phones.get(row.id) ?? []))))
  }
}

async function columnsFor(module: Module, column: Column, ids: string[]): Promise<FileColumn[]> {
  if (column.key === 'name' && isPersonModule(module))
    return [{ heading: 'First name', of: row => row.firstName ?? (row.lastName ? '' : row.name) }, { heading: 'Last name', of: row => row.lastName ?? '' }]
  if (column.key === 'phone') return numberColumns(ids)
  return [{ heading: column.label, of: row => valueOf(row, column) }]
}

/** In the order in which the columns stand; "number" is whatever is neither of the others. */
const LABELS = ['mobile', 'work', 'home', 'number'] as const
const isTheirs = sql`${phone.unusable} is distinct from 'not-theirs'`

/** As many columns of each kind of number as whoever has most of them needs. */
async function numberColumns(ids: string[]): Promise<FileColumn[]> {
  const { rows } = await ask<{ labels: string[] }>(sql`select distinct array_agg(label order by position) as labels from ${phone}
    where record_id = any(${uuidArray(ids)}) and ${isTheirs} group by record_id`)
  const most = (label: string) => Math.max(0, ...rows.map(({ labels }) => labels.filter(one => labelOf(one) === label).length))
  const found = LABELS.flatMap(label => Array.from({ length: most(label) }, (_, i) => numberColumn(label, i)))
  return found.length > 0 ? found : [numberColumn('number', 0)]
}

function numberColumn(label: typeof LABELS[number], place: number): FileColumn {
  const heading = `${label[0]!.toUpperCase()}${label.slice(1)}`
  return {
    heading: place === 0 ? heading : `${heading} ${place + 1}`,
    of: (_, phones) => {
      const one = phones.filter(phone => labelOf(phone.label) === label)[place]
      return one ? [one.e164 ?? one.typed, one.extension && one.e164 ? `ext. ${one.extension}` : ''].filter(Boolean).join(' ') : ''
    },
  }
}

async function phonesOf(rows: RecordRow[]): Promise<Map<string, Phone[]>> {
  const found = await read(database =>
    database
      .select()
      .from(phone)
      .where(sql`${phone.recordId} = any(${uuidArray(rows.map(({ id }) => id))}) and ${isTheirs}`)
      .orderBy(phone.position),
  )
  const phones = new Map<string, Phone[]>(rows.map(({ id }) => [id, []]))
  for (const one of found) phones.get(one.recordId)!.push(one)
  return phones
}

const INSTANTS: Record<string, (row: RecordRow) => number | null> = { 'last-contact': row => row.lastContactAt, 'made': row => row.madeAt }
const TEXTS: Record<string, (row: RecordRow) => unknown> = {
  'company': row => row.company?.name,
  'owner': row => row.owner.name,
  'pipeline': row => row.pipeline?.name,
  'tags': row => row.tags.join(', '),
  'opted-out': row => row.optedOut ? 'yes' : 'no',
}

/** A value as files hold it: instants as ISO 8601, numbers and days as they are. */
function valueOf(row: RecordRow, { key }: Column): string {
  if (INSTANTS[key]) {
    const instant = INSTANTS[key](row)
    return instant === null ? '' : new Date(instant).toISOString()
  }
  const value = TEXTS[key] ? TEXTS[key](row) : key.startsWith('own.') ? valueIn(row.fields, key.slice('own.'.length)) : row[key as 'name']
  return value === null || value === undefined ? '' : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
}
