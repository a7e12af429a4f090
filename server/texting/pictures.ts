import { and, eq, inArray, isNull, lt, sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { MOST_PICTURES, type PictureFacts } from '~~/shared/pictures'
import { once, read, tx } from '../db/door'
import { bulkText, draft, message, picture } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { mayReadEntry } from '../reading/entries'
import { visible } from '../reading/visible'
import type { Price } from './lines'
import { shrinkPicture } from './shrink-picture'

/** What was put in and never sent is forgotten after this long, unless a draft still holds it. */
const KEPT_UNSENT_MS = 30 * 86_400_000

/** Keeps a picture for a text that is being written. Putting the same in again changes nothing. */
export async function takePicture(asker: SignedIn, id: string, file: Buffer, now: Date): Promise<PictureFacts> {
  const small = await shrinkPicture(file)
  return tx(async (database) => {
    await forgetUnsent(asker, now)
    await database.insert(picture).values({ id, colleagueId: asker.id, ...small, size: small.bytes.length, at: now }).onConflictDoNothing()
    const [kept] = await unsent(asker, [id])
    if (!kept) throw badInput({ picture: 'This picture is in another text already. Put it in anew.' })
    return kept
  })
}

/** Takes a picture out before its text is sent. */
export async function dropPicture(asker: SignedIn, id: string): Promise<void> {
  await tx(database =>
    database.delete(picture).where(and(eq(picture.id, id), eq(picture.colleagueId, asker.id), isNull(picture.messageId), NOT_IN_BULK)),
  )
}

/** @throws Problem 404 for one that is neither my own nor in an entry that I may read */
export async function readPicture(asker: SignedIn, id: string): Promise<{ type: string, bytes: Buffer }> {
  const [found] = await read(database =>
    database
      .select({ type: picture.type, bytes: BYTES })
      .from(picture)
      .where(
        and(
          eq(picture.id, id),
          sql`(${picture.colleagueId} = ${asker.id}::uuid or exists (
    select 1 from ${message} m where m.id = ${picture.messageId} and ${mayReadEntry(asker, sql`m.activity_id`)})
    or exists (select 1 from ${bulkText} b where b.picture_ids ? ${picture.id}::text
      and ${visible(asker, 'bulk.work', { owner: sql`b.made_by`, team: sql`null::uuid` })}))`,
        ),
      ),
  )
  if (!found?.bytes) throw notFound('picture')
  return { type: found.type, bytes: found.bytes }
}

/** @throws Problem 422 where one of them is not the asker's own, or is in a text that was sent */
export async function mustBeUnsent(asker: SignedIn, ids: string[]): Promise<void> {
  if ((await unsent(asker, ids)).length < ids.length)
    throw badInput({ pictureIds: 'A picture of this text is not there any more. Take it out and put it in anew.' })
}

/** The same pictures once more, for a text that goes to many: each has its own place in it, and the bytes are there once. */
export async function copyPictures(asker: SignedIn, ids: string[], now: Date): Promise<string[]> {
  if (ids.length === 0) return []
  return tx(async (database) => {
    const originals = await database.select().from(picture).where(inArray(picture.id, ids))
    const copies = ids.flatMap(id => originals.filter(one => one.id === id))
      .map(({ id: ofId, type, width, height, size }) =>
        ({ id: uuid(), colleagueId: asker.id, type, width, height, size, bytes: null, ofId, at: now }))
    if (copies.length > 0) await database.insert(picture).values(copies)
    return copies.map(({ id }) => id)
  })
}

/** @throws Problem 422 where the line's carrier does not take these pictures */
export async function checkPictures(asker: SignedIn, ids: string[], lineName: string, price: Price | null): Promise<void> {
  if (ids.length === 0) return
  if (!price || price.microsPerPicture === null)
    throw badInput({
      pictureIds: `No pictures go out over ${lineName}: its carrier takes none in that country. Remove them, or choose another line.`,
    })
  if (ids.length > price.mostPictures)
    throw badInput({
      pictureIds: `The carrier takes ${price.mostPictures} pictures in one text at most. Take ${ids.length - price.mostPictures} out.`,
    })
  const found = await unsent(asker, ids)
  if (found.length < ids.length)
    throw badInput({ pictureIds: 'A picture of this text is not there any more. Take it out and put it in anew.' })
  if (found.some(({ size }) => size > price.mostPictureBytes))
    throw badInput({ pictureIds: 'A picture is too large for this carrier. Take it out, or choose another line.' })
}

/** The pictures of texts that are about to be handed over, by text, in the order in which they were put in. */
export async function picturesOf(messageIds: string[]): Promise<Map<string, { type: string, bytes: Buffer }[]>> {
  const rows
    = messageIds.length === 0
      ? []
      : await read(database => database.select({ messageId: picture.messageId, type: picture.type, bytes: BYTES }).from(picture)
          .where(inArray(picture.messageId, messageIds)).orderBy(picture.id))
  const byMessage = new Map<string, { type: string, bytes: Buffer }[]>()
  for (const { messageId, type, bytes } of rows) byMessage.set(messageId!, [...byMessage.get(messageId!) ?? [], { type, bytes: bytes! }])
  return byMessage
}

/** Gives the pictures of a text that was taken back to its writer again. */
export async function takePicturesBack(messageId: string): Promise<string[]> {
  const rows = await tx(async (database) => {
    await database.update(message).set({ pictures: 0 }).where(eq(message.id, messageId))
    return database.update(picture).set({ messageId: null }).where(eq(picture.messageId, messageId)).returning({ id: picture.id })
  })
  return rows.map(({ id }) => id).sort()
}

/** No bulk text has it, and no text of one. */
const NOT_IN_BULK = sql`not exists (select 1 from ${bulkText} b where b.picture_ids ? picture.id::text)
  and not exists (select 1 from ${picture} copy where copy.of_id = picture.id)`

/** Its own, or those of the picture that it is once more. */
const BYTES = sql<Buffer | null>`coalesce(${picture.bytes}, (select original.bytes from ${picture} original where original.id = picture.of_id))`

const unsent = (asker: SignedIn, ids: string[]) => read(database => database
  .select({ id: picture.id, width: picture.width, height: picture.height, size: picture.size })
  .from(picture)
  .where(and(inArray(picture.id, ids), eq(picture.colleagueId, asker.id), isNull(picture.messageId)))
  .limit(MOST_PICTURES))

async function forgetUnsent(asker: SignedIn, now: Date): Promise<void> {
  const old = and(eq(picture.colleagueId, asker.id), isNull(picture.messageId), lt(picture.at, new Date(now.getTime() - KEPT_UNSENT_MS)))
  await once(sql`delete from ${picture} where ${old} and not exists (select 1 from ${draft} d where d.colleague_id = ${asker.id}::uuid
    and d.picture_ids ? ${picture.id}::text) and ${NOT_IN_BULK}`)
}
