import { getTableColumns, getTableName, is, sql } from 'drizzle-orm'
import { PgTable } from 'drizzle-orm/pg-core'
import { once } from '~~/server/db/door'
import * as schema from '~~/server/db/schema'
import { useDatabase } from '../../support/database'

useDatabase()

const TABLES = Object.values(schema).filter(one => is(one, PgTable)) as PgTable[]
const columnsOf = (table: PgTable) =>
  Object.values(getTableColumns(table)).map(({ name, enumValues }) => ({ table: getTableName(table), name, enumValues }))

/** Ids that point at a row and that the database does not hold to it, each with the reason. */
const LOOSE: Record<string, string> = {
  'activity.message_id': 'message.activity_id says the same, and the two cannot each come first',
  'activity_on_record.via_record_id':
    'a record that goes would have to be looked for in every entry there is; where it is gone nobody asks for it by name',
  'activity_on_record.private_line_id': 'lines never go, and this is written with every entry of a private one',
  'activity_on_record.along_line_id': 'lines never go, and this is written with every entry that comes along',
  'knock.about_id': 'a conversation or a task; which of them, the columns beside it say',
  'bulk_text.occasion_id': 'what all audiences of an occasion have in common: the first of them, which may go while the others stay',
  'bulk_person.occasion_id': 'that of their bulk text, for an index over all audiences',
  'import_seen.hash': 'no id: the hash of a row, in a type of its size',
  'sign_in.id': 'its own name beside its key',
  'smpp_received_part.id': 'its own name, by which the text that it becomes is called',
}

describe('the tables', () => {
  it('hold every id that points somewhere to where it points, or say why not', async () => {
    const { rows } = await once<{ place: string }>(sql`
      select c.table_name || '.' || c.column_name as place from information_schema.columns c
      where c.table_schema = 'public' and c.data_type = 'uuid'
        and not exists (
          select 1 from information_schema.table_constraints t join information_schema.key_column_usage k
            using (constraint_name, table_name)
          where t.table_name = c.table_name and k.column_name = c.column_name and t.constraint_type = 'FOREIGN KEY')
        and not (c.column_name = 'id' and exists (
          select 1 from information_schema.table_constraints t join information_schema.key_column_usage k
            using (constraint_name, table_name)
          where t.table_name = c.table_name and k.column_name = 'id' and t.constraint_type = 'PRIMARY KEY'))`)
    expect(rows.map(({ place }) => place).sort()).toEqual(Object.keys(LOOSE).sort())
  })

  it('take only words that the types know, in every column of which the types know all', async () => {
    const known = TABLES.flatMap(columnsOf).filter(({ enumValues }) => (enumValues?.length ?? 0) > 0)
    const { rows } = await once<{ name: string, says: string }>(sql`select conname as name, pg_get_constraintdef(oid) as says
      from pg_constraint where contype = 'c' and conname like '%_known'`)
    const says = new Map(rows.map(one => [one.name, one.says]))
    for (const { table, name, enumValues } of known) {
      const words = [...says.get(`${table}_${name}_known`)?.matchAll(/'([^']+)'::text/g) ?? []].map(([, word]) => word)
      expect({ table, name, words: words.sort() }).toEqual({ table, name, words: [...enumValues!].sort() })
    }
    expect(says.size).toBe(known.length)
  })

  it('find by an index what is left behind when a row goes', async () => {
    const { rows } = await once<{ place: string }>(sql`
      select distinct t.relname || '.' || a.attname as place
      from pg_constraint c join pg_class t on t.oid = c.conrelid join pg_class r on r.oid = c.confrelid
        join pg_attribute a on a.attrelid = t.oid and a.attnum = c.conkey[1]
      where c.contype = 'f' and r.relname = 'record'
        and not exists (select 1 from pg_index i where i.indrelid = t.oid and i.indkey[0] = a.attnum)`)
    expect(rows).toEqual([])
  })
})
