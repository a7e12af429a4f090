import { eq } from 'drizzle-orm'
import { can, type Asker, type Permission } from '~~/shared/permissions'
import { read } from '../db/door'
import { record } from '../db/schema'
import { notAllowed, notFound } from '../http/problem'

export type StoredRecord = typeof record.$inferSelect

/**
 * A record, for somebody who may do this with it.
 *
 * @throws Problem 404 if it may not be seen, 403 if it may be seen but not this done
 */
export async function authorize(asker: Asker, permission: Permission, recordId: string): Promise<StoredRecord> {
  const [found] = await read(database => database.select().from(record).where(eq(record.id, recordId)))
  if (!found || !can(asker, 'record.see', found)) throw notFound('record')
  if (!can(asker, permission, found)) throw notAllowed('change this record')
  return found
}
