import { sql, type SQL } from 'drizzle-orm'
import type { ActivityKind } from '~~/core/timeline/kinds'

/** Whether a column holds one of these kinds of entry; as words of the statement, so that it is planned with them. */
export const isKind = (column: SQL, kinds: readonly ActivityKind[]): SQL =>
  sql`${column} in (${sql.raw(kinds.map(kind => `'${kind}'`).join(', '))})`
