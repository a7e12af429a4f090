import { and, asc, eq, isNull } from 'drizzle-orm'
import type { DispositionPreview } from '~~/shared/calling'
import { isPersonModule, type PersonModule } from '~~/shared/modules'
import { tx } from '../db/door'
import { disposition } from '../db/schema'
import type { Occasion } from '../effects/effect'
import { factsFor, previewOf } from '../effects/happen'
import type { SignedIn } from '../identity/sign-in'
import { authorize, type StoredRecord } from '../records/one'
import { forSuchCalls } from './purpose'
import { mustBeMyCall, type StoredCall } from './stored'

type Person = StoredRecord & { module: PersonModule }

/** Whoever is on no record is spoken of as a lead: what is said of the call is kept, and does nothing to anybody. */
export const MODULE_OF_STRANGERS: PersonModule = 'lead'

/** Every key that a call can be ended with, with what each would do for this person; for a number on no record nothing but the note. */
export async function previewDispositions(asker: SignedIn, callId: string, now: Date): Promise<DispositionPreview[]> {
  return tx(async (database) => {
    const call = await mustBeMyCall(asker, callId)
    const person = await personOf(asker, call)
    const rows = await database
      .select()
      .from(disposition)
      .where(and(eq(disposition.module, person?.module ?? MODULE_OF_STRANGERS), isNull(disposition.retiredAt), forSuchCalls(call)))
      .orderBy(asc(disposition.position))
    if (!person) return rows.map(({ id, name, letter, colour, family }) => ({ id, name, letter, colour, family, effects: [] }))
    const occasion = occasionOf(asker, call, person)
    const facts = await factsFor(rows.flatMap(({ effects }) => effects), occasion, now)
    return rows.map(({ id, name, letter, colour, family, effects }) => ({
      id, name, letter, colour, family, effects: effects.map((effect, position) => previewOf(effect, position, facts, occasion, now)),
    }))
  })
}

/** The person a call was with; null for one on no record. */
export async function personOf(asker: SignedIn, call: StoredCall): Promise<Person | null> {
  const record = call.recordId ? await authorize(asker, 'record.see', call.recordId) : null
  return record && isPersonModule(record.module) ? { ...record, module: record.module } : null
}

export const occasionOf = (asker: SignedIn, call: StoredCall, record: StoredRecord): Occasion =>
  ({ asker, record, remote: call.remote, lineId: call.lineId, because: { callId: call.id } })
