import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { columnsOf, firstLook } from '~~/shared/columns'
import { MODULES, type Module } from '~~/shared/modules'
import { apart, inTurns, read, type Database } from '../db/door'
import { view } from '../db/schema'
import { log } from '../log/log'
import { OWN, ownField } from './columns'
import { ownFields } from './fields'
import { inOrder } from './walk'

const PREFIX = 'sorted_own_'

/** More would cost every record that is written more than they are worth. */
const MOST = 24

/** Known to every process: who holds it makes and takes these indexes, so that nobody takes one away that another is just making. */
const INDEXING = 7_528_339

/**
 * Gives each own field by which a kept list is sorted, or one that nobody has arranged yet, an index by which that list is
 * walked, and takes those away that serve none any more. On a server whoever writes meanwhile goes on. Without such an index a
 * list only takes longer, so what fails is logged, and tried again with the hourly tidying.
 */
export async function indexSortedFields(): Promise<void> {
  try {
    await apart(async (database) => {
      const { rows: [lock] } = await database.execute<{ ours: boolean }>(sql`select pg_try_advisory_lock(${INDEXING}::int) as ours`)
      // whoever has it looks at the same lists
      if (!lock!.ours) return
      try {
        await bringUpToDate(database)
      }
      finally {
        await database.execute(sql`select pg_advisory_unlock(${INDEXING}::int)`)
      }
    })
  }
  catch (error) {
    log.error({ err: error }, 'the order of a kept list has no index yet; the hourly tidying tries again')
  }
}

async function bringUpToDate(database: Pick<Database, 'execute'>): Promise<void> {
  const wanted = new Map((await sortedFields()).slice(0, MOST).map(field => [nameOf(field), field]))
  const { rows: there } = await database.execute<{ name: string, valid: boolean }>(sql`
    select c.relname as name, i.indisvalid as valid from pg_class c join pg_index i on i.indexrelid = c.oid
    where starts_with(c.relname, ${PREFIX}::text) and c.relnamespace = 'public'::regnamespace`)
  const beside = sql.raw(inTurns() ? '' : 'concurrently')
  // one that was left half made serves nobody, and costs every write
  for (const { name } of there.filter(one => !wanted.has(one.name) || !one.valid))
    await database.execute(sql`drop index ${beside} if exists ${sql.identifier(name)}`)
  for (const [name, { module, column }] of wanted) {
    if (there.some(one => one.name === name && one.valid)) continue
    await database.execute(sql`
      create index ${beside} if not exists ${sql.identifier(name)} on record ((${inOrder(column.kind, ownField(column, sql`fields`))}), id)
      where module = ${sql.raw(`'${module}'`)}`)
  }
}

type Sorted = { module: Module, column: ReturnType<typeof columnsOf>[number] }

async function sortedFields(): Promise<Sorted[]> {
  const kept = await read(database =>
    database.selectDistinct({ module: view.module, sort: view.sort }).from(view).orderBy(view.module, view.sort))
  const fields = await ownFields()
  const asked = [...MODULES.map(module => ({ module, sort: firstLook(module).sort })), ...kept]
  const columns = asked.filter(({ sort }) => sort.startsWith(OWN)).flatMap(({ module, sort }) => {
    const column = columnsOf(module, fields).find(({ key }) => key === sort)
    return column ? [{ module, column }] : []
  })
  return columns.filter((one, i) => columns.findIndex(other => nameOf(other) === nameOf(one)) === i)
}

/** A name of the database holds 63 characters, and a field's key as many as it likes. */
const nameOf = ({ module, column }: Sorted): string =>
  `${PREFIX}${createHash('sha256').update(`${module} ${column.key} ${column.kind}`).digest('hex').slice(0, 16)}`
