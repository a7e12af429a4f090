import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/** An instant of the database as epoch milliseconds, for rows that no table object maps. */
export const milliseconds = (instant: SQLWrapper): SQL<number> => sql<number>`(extract(epoch from ${instant}) * 1000)::float8`

/** Ids as one parameter, for `= any(...)`: the statement stays the same however many they are. */
export const uuidArray = (ids: string[]): SQL => sql`${`{${ids.join(',')}}`}::uuid[]`

/** Words without commas or quotes, such as states, as one parameter. */
export const textArray = (words: readonly string[]): SQL => sql`${`{${words.join(',')}}`}::text[]`

/** Epoch milliseconds or a Date as a parameter. */
export const at = (instant: Date | number): SQL => sql`${new Date(instant).toISOString()}::timestamptz`
