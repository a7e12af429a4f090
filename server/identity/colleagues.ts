import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import type { CallsWith } from '~~/shared/calling'
import { read, tx } from '../db/door'
import { colleague } from '../db/schema'

/** Everybody to whom something can be given, by name; nothing is given to a helper from outside. */
export async function colleagues(): Promise<{ id: string, name: string }[]> {
  return read(database =>
    database
      .select({ id: colleague.id, name: colleague.name })
      .from(colleague)
      .where(and(isNull(colleague.leftAt), ne(colleague.role, 'helper')))
      .orderBy(sql`${colleague.name} collate "und-x-icu"`),
  )
}

export async function firstNames(ids: string[]): Promise<Map<string, string>> {
  const rows = await read(database =>
    database.select({ id: colleague.id, firstName: colleague.firstName }).from(colleague).where(inArray(colleague.id, ids)),
  )
  return new Map(rows.map(({ id, firstName }) => [id, firstName]))
}

/** With what somebody calls: the browser, or telephones of their own. */
export async function setCallsWith(colleagueId: string, callsWith: CallsWith): Promise<void> {
  await tx(database => database.update(colleague).set({ callsWith }).where(eq(colleague.id, colleagueId)))
}
