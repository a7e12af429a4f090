import { Readable } from 'node:stream'
import { sql } from 'drizzle-orm'
import { writeVCard } from '~~/core/formats/vcard'
import { hasNumbers } from '~~/shared/modules'
import { scopeOf } from '~~/shared/permissions'
import type { RecordRow } from '~~/shared/record'
import type { ExportQuery } from '~~/shared/schemas/list'
import { ask, read } from '../db/door'
import { uuidArray } from '../db/instants'
import { planned } from '../db/prepared'
import { phone } from '../db/schema'
import { badInput, notAllowed } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { sqlColumnsOf } from './columns'
import { csvOf } from './export-csv'
import { chosenBy } from './list'
import { withGroups } from './groups/of-records'
import { rowsWith } from './rows'

/** Rows that are read at once; in between others have their turn. */
const PIECE = 200

/**
 * Everything that a list holds and that this person may take out, in its order, as a stream of text: CSV with the
 * columns that are shown, or vCards (RFC 6350). Which records is settled at the start, and noted in the audit log.
 */
export async function exportRecords(asker: SignedIn, { columns: keys, format, ...query }: ExportQuery, now: Date): Promise<Readable> {
  if (scopeOf(asker, 'record.export') === 'none') throw notAllowed('take records out. Ask an admin for that')
  const known = await sqlColumnsOf(asker, query.module)
  if (format === 'vcf' && !hasNumbers(query.module))
    throw badInput({ format: 'A vCard is of people and companies. Take these out as a table.' })
  const columns = keys.map(key => known.get(key) ?? refuse(key))
  const { from, where, order } = await chosenBy(asker, query, now, 'record.export')
  const { rows } = await ask<{ id: string }>(planned(sql`select r.id from ${from} where ${where} order by ${order}`))
  const ids = rows.map(({ id }) => id)
  const complete = keys.includes('groups') ? (rows: RecordRow[]) => withGroups(asker, query.module, rows, now) : (rows: RecordRow[]) => rows
  await note('exported', asker.id, now, { module: query.module, format, count: ids.length })
  return Readable.from(format === 'csv' ? csvOf(query.module, columns, ids, pieces(asker, ids, complete)) : vCardsOf(pieces(asker, ids, complete)))
}

function refuse(key: string): never {
  throw badInput({ columns: `There is no column “${key}” here. Take it away.` })
}

async function* vCardsOf(pieces: AsyncIterable<RecordRow[]>): AsyncGenerator<string> {
  for await (const rows of pieces) {
    const numbers = await read(database =>
      database
        .select()
        .from(phone)
        .where(sql`${phone.recordId} = any(${uuidArray(rows.map(({ id }) => id))}) and ${phone.e164} is not null`)
        .orderBy(phone.position),
    )
    yield rows.map(row => writeVCard({
      ...row,
      company: row.company?.name ?? null,
      address: row,
      phones: numbers.filter(({ recordId }) => recordId === row.id).map(({ e164, extension, kind }) => ({ e164: e164!, extension, kind })),
    })).join('')
  }
}

async function* pieces(
  asker: SignedIn,
  ids: string[],
  complete: (rows: RecordRow[]) => RecordRow[] | Promise<RecordRow[]>,
): AsyncGenerator<RecordRow[]> {
  for (let start = 0; start < ids.length; start += PIECE) {
    const piece = ids.slice(start, start + PIECE)
    yield complete(await rowsWith(asker, piece))
  }
}
