import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { carrierNamed } from '../carriers/registry'
import { tx } from '../db/door'
import { message, picture } from '../db/schema'
import { Problem } from '../http/problem'
import { addJob } from '../jobs/add'
import { FETCH_PICTURE } from '../jobs/kinds'
import { settle, type Handler } from '../jobs/outbox'
import { log } from '../log/log'
import { announceMessage } from './announce'
import { shrinkPicture, type SmallPicture } from './shrink-picture'

const AGAIN_MS = 10_000
/** A picture that cannot be fetched for so long is not asked for any more. */
const GIVEN_UP_MS = 24 * 3_600_000

/** Pictures came with a text: each is fetched by a job, in the transaction around. */
export async function fetchPicturesLater(messageId: string, carrier: string, names: string[], now: Date): Promise<void> {
  for (const [place, name] of names.entries())
    await addJob({ kind: FETCH_PICTURE, key: `${messageId} ${place}`, payload: { messageId, carrier, name, since: now.getTime() }, dueAt: now })
}

/**
 * Fetches pictures that came in, looks whether they are any, makes them small and takes off what the camera wrote into them.
 * One that is none, or is gone, is left out of the text.
 */
export const fetchPictures: Handler = async (claims, now) => claims.map(claim => async () => {
  const { messageId, carrier, name, since } = claim.payload as { messageId: string, carrier: string, name: string, since: number }
  const fetched = await fetchFrom(carrier, name)
  const gone = now().getTime() - since > GIVEN_UP_MS
  if (fetched === undefined && !gone) return settle(claim, now(), async () => ({ dueAt: new Date(now().getTime() + AGAIN_MS) }))
  const small = fetched ? await asPicture(fetched, messageId) : null
  return settle(claim, now(), async () => {
    await keep(messageId, small, now())
    await announceMessage(messageId)
    return 'done'
  })
})

/** Undefined while the carrier cannot be reached. */
async function fetchFrom(carrier: string, name: string): Promise<Buffer | null | undefined> {
  const { pictureOf } = carrierNamed(carrier)
  return pictureOf ? pictureOf(name).catch(() => undefined) : null
}

async function asPicture(bytes: Buffer, messageId: string): Promise<SmallPicture | null> {
  try {
    return await shrinkPicture(bytes)
  }
  catch (error) {
    if (!(error instanceof Problem)) throw error
    log.warn({ messageId }, 'what came in as a picture is none that can be shown; it is left out')
    return null
  }
}

async function keep(messageId: string, small: SmallPicture | null, now: Date): Promise<void> {
  await tx(async (database) => {
    const [of] = await database.select({ pictures: message.pictures }).from(message).where(eq(message.id, messageId)).for('update')
    if (!of) return
    if (small)
      await database.insert(picture).values({ id: uuid(), colleagueId: null, messageId, ...small, size: small.bytes.length, at: now })
    else await database.update(message).set({ pictures: of.pictures - 1 }).where(eq(message.id, messageId))
  })
}
