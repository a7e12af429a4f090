import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { consentAt, type CONSENT_WAYS, type ConsentKind, type COVERS } from '~~/core/consent/ledger'
import { tx } from '../db/door'
import { consentEntry, numberState } from '../db/schema'
import { recordsWithNumber } from '../records/phones'
import { appendEntry } from '../activity/append'
import { lockNumber } from './number'

export interface NewConsent {
  e164: string
  at: Date
  kind: ConsentKind
  annulsId?: string
  covers: typeof COVERS[number]
  how: typeof CONSENT_WAYS[number]
  words: string | null
  messageId?: string
  colleagueId?: string
}

/**
 * Writes a line into a number's ledger, brings the stored state up to it, and shows it on the timelines
 * of the records that hold the number.
 *
 * @returns its id, by which it can be annulled
 */
export async function writeConsent(entry: NewConsent): Promise<string> {
  return tx(async (database) => {
    const id = uuid()
    await lockNumber(entry.e164)
    await database.insert(consentEntry).values({ id, ...entry })
    await storeState(entry.e164, entry.at)
    await appendEntry({
      id: uuid(),
      at: entry.at,
      kind: 'consent-changed',
      colleagueId: entry.colleagueId ?? null,
      data: { kind: entry.kind, covers: entry.covers, how: entry.how },
      content: { e164: entry.e164 },
      // what somebody wrote stands in their own text, for those who may read it
      words: entry.messageId ? undefined : entry.words ?? undefined,
    }, await recordsWithNumber(entry.e164))
    return id
  })
}

/** Takes a line of the ledger back, by another line: what stood before it stands again, whatever that was. */
export async function annulConsent(entryId: string, colleagueId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [annulled] = await database.select().from(consentEntry).where(eq(consentEntry.id, entryId))
    const { e164, covers, how } = annulled!
    await writeConsent({ e164, at: now, kind: 'annulled', annulsId: entryId, covers, how, words: null, colleagueId })
  })
}

/** Computes the state from the ledger and keeps it for queries; a test recomputes it. */
export async function storeState(e164: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const rows = await database.select().from(consentEntry).where(eq(consentEntry.e164, e164))
    const state = consentAt(rows.map(row => ({ ...row, at: row.at.getTime() })), now.getTime())
    await database.update(numberState)
      .set({ texts: state.texts, calls: state.calls, textsEntryId: state.textsBy?.id ?? null })
      .where(eq(numberState.e164, e164))
  })
}
