import { and, eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { can } from '~~/shared/permissions'
import type { MarkForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { call, callTransfer, line, recording, recordingMark } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import { log } from '../log/log'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { addJob } from '../jobs/add'
import { FETCH_RECORDING } from '../jobs/kinds'
import { settle, type Handler } from '../jobs/outbox'
import { lineBelongs } from '../texting/lines'
import { theExchange } from './port'
import { oweCall } from './owed'
import { readSound } from './sound'
import { announceCall, type StoredCall } from './stored'

const AGAIN_MS = 10_000

/** Something was recorded: it is fetched by a job, again and again until the exchange gives it. */
export async function fetchLater({ id }: StoredCall, of: 'call' | 'message', now: Date): Promise<void> {
  await addJob({ kind: FETCH_RECORDING, key: id, payload: { callId: id, of }, dueAt: now })
}

export const fetchRecordings: Handler = async (claims, now) => claims.map(claim => async () => {
  const [of] = await read(database => database.select().from(call).where(eq(call.id, String(claim.payload.callId))))
  const fetched = of?.exchangeRef ? await theExchange().recordingOf(of.exchangeRef).catch(() => undefined) : null
  if (fetched === undefined) return settle(claim, now(), async () => ({ dueAt: new Date(now().getTime() + AGAIN_MS) }))
  const sound = fetched && readSound(fetched)
  if (fetched && !sound) log.warn({ callId: of!.id }, 'what the exchange gave as a recording is no WAV file, or too long; it is left')
  return settle(claim, now(), async () => {
    if (!sound) return 'done'
    await tx(database =>
      database
        .insert(recording)
        .values({
          id: uuid(),
          callId: of!.id,
          of: claim.payload.of as 'call' | 'message',
          ...sound,
          size: fetched.length,
          sound: fetched,
          at: now(),
        })
        .onConflictDoNothing(),
    )
    await announceCall(of!)
    if (claim.payload.of === 'message') await oweCall(of!)
    return 'done'
  })
})

/**
 * The sound of a recording. That somebody has listened is noted in the audit log.
 *
 * @throws Problem 404, 403
 */
export async function hearRecording(asker: SignedIn, id: string, now: Date): Promise<Buffer> {
  return tx(async (database) => {
    const { callId } = await mustHear(asker, id)
    const [found] = await database.select({ sound: recording.sound }).from(recording).where(eq(recording.id, id))
    await note('recording-heard', asker.id, now, { recordingId: id, callId })
    return found!.sound
  })
}

/** Notes something at a moment of a recording, once under its id. */
export async function markRecording(asker: SignedIn, id: string, form: MarkForm, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustHear(asker, id)
    if (form.atMs > found.ms) throw badInput({ atMs: 'The recording is not that long. Choose an earlier moment.' })
    await database.insert(recordingMark).values({ ...form, recordingId: id, colleagueId: asker.id, madeAt: now }).onConflictDoNothing()
    const [of] = await database.select().from(call).where(eq(call.id, found.callId))
    await announceCall(of!)
  })
}

/** A talk by who may listen to whoever had it, or had it before they handed it on; a message by all who answer its line. */
async function mustHear(asker: SignedIn, id: string): Promise<{ callId: string, ms: number }> {
  const [found] = await read(database =>
    database
      .select({ callId: call.id, ms: recording.ms, of: recording.of, colleagueId: call.colleagueId, line })
      .from(recording)
      .innerJoin(call, eq(call.id, recording.callId))
      .innerJoin(line, eq(line.id, call.lineId))
      .where(eq(recording.id, id)),
  )
  if (!found || !can(asker, 'line.answer', lineBelongs(found.line))) throw notFound('recording')
  const had = [found.colleagueId, ...await handedOnBy(found.callId)]
  if (found.of === 'call' && !had.some(ownerId => can(asker, 'recording.hear', { ownerId })))
    throw notAllowed('listen to this; whoever talked does, and their lead')
  return found
}

async function handedOnBy(callId: string): Promise<string[]> {
  const rows = await read(database => database.select({ id: callTransfer.fromId }).from(callTransfer)
    .where(and(eq(callTransfer.callId, callId), eq(callTransfer.state, 'transferred'))))
  return rows.map(({ id }) => id)
}
