import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/** An instant of the database as epoch milliseconds, for rows that no table object maps. */
export const milliseconds = (instant: SQLWrapper): SQL<number> => sql<number>`(extract(epoch from ${instant}) * 1000)::float8`

/** Ids as one parameter, for `= any(...)`: the statement stays the same however many they are. */
export const uuidArray = (ids: readonly string[]): SQL => sql`${sql.param(ids)}::uuid[]`

/** Words as one parameter, whatever stands in them. */
export const textArray = (words: readonly string[]): SQL => sql`${sql.param(words)}::text[]`

/** Epoch milliseconds or a Date as a parameter. */
export const at = (instant: Date | number): SQL => sql`${new Date(instant).toISOString()}::timestamptz`
