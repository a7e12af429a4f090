import { eq, getTableColumns } from 'drizzle-orm'
import { can, type Belongs } from '~~/shared/permissions'
import { tx } from '../db/door'
import { bulkText } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { announce } from '../live/notices'

const { recordIds: _people, ...columns } = getTableColumns(bulkText)
/** A bulk text without the list of its people, which may be long. */
export const BULK_COLUMNS = columns
export type StoredBulk = Omit<typeof bulkText.$inferSelect, 'recordIds'>

export const bulkBelongs = ({ madeBy }: Pick<StoredBulk, 'madeBy'>): Belongs => ({ ownerId: madeBy })

/** Tells those who may see it. */
export const announceBulk = (bulk: Pick<StoredBulk, 'id' | 'madeBy'>): void =>
  announce({ kind: 'bulk-text', bulkId: bulk.id }, 'bulk.work', [bulkBelongs(bulk)])

/** One of them, its row locked until the end of the transaction: what is done with it goes one after the other. */
export async function lockBulk(id: string): Promise<StoredBulk | undefined> {
  const [found] = await tx(database => database.select(BULK_COLUMNS).from(bulkText).where(eq(bulkText.id, id)).for('update'))
  return found
}

/** @throws Problem 404 for one that one may not see */
export async function mustSeeBulk(asker: SignedIn, id: string): Promise<StoredBulk> {
  const [found] = await tx(database => database.select(BULK_COLUMNS).from(bulkText).where(eq(bulkText.id, id)))
  if (!found || !can(asker, 'bulk.work', bulkBelongs(found))) throw notFound('bulk text')
  return found
}

/** The same, its row locked until the end of the transaction, for what is done with it. */
export async function mustHoldBulk(asker: SignedIn, id: string): Promise<StoredBulk> {
  const found = await lockBulk(id)
  if (!found || !can(asker, 'bulk.work', bulkBelongs(found))) throw notFound('bulk text')
  return found
}
