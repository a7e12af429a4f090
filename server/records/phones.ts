import { and, eq, isNotNull, sql } from 'drizzle-orm'
import { rulesBetween, type ZoneRules } from '~~/core/hours/rules'
import { zoneRules } from '~~/core/hours/zones'
import { zonesOfPerson } from '~~/core/hours/places'
import { placesOfPerson } from '~~/core/hours/whereabouts'
import { readPhone } from '~~/core/phone/read'
import { zonesOfNumber } from '~~/core/phone/zones'
import numberRegions from '~~/core/phone/number-regions.json'
import numberZones from '~~/core/phone/number-zones.json'
import type { Asker } from '~~/shared/permissions'
import type { RecordPhone } from '~~/shared/record'
import { read } from '../db/door'
import { milliseconds, uuidArray } from '../db/instants'
import { consentEntry, conversation, line, message, numberState, phone, record } from '../db/schema'
import { mayReadEntry } from '../reading/entries'

/** What of a record decides in which zones its person may be. */
export interface Place { zone: string | null, country: string | null, region: string | null }

export const zonesOf = (place: Place, e164: string | null) => zonesOfPerson(place, e164 ? zonesOfNumber(e164, numberZones) : [])

/** Where they may be, for rules that hold by place. */
export const placesOf = (place: Pick<Place, 'country' | 'region'>, e164: string | null) => placesOfPerson(place, e164, numberRegions)

/** A typed number as it is stored: read if it can be, kept as typed with the reason if not. */
export function storedPhone(typed: string, country: string | null) {
  const reading = readPhone(typed, country ?? undefined)
  return reading.ok
    ? { typed, e164: reading.e164, country: reading.country, kind: reading.kind, extension: reading.extension ?? null, unusable: null }
    : { typed, e164: null, country: null, kind: 'unknown' as const, extension: null, unusable: reading.reason }
}

/**
 * The numbers of records with their consent, and who decided it when and how; with which words, for those who may read them.
 *
 * @param named says of each whose it is
 */
export async function phonesOf(asker: Asker, recordIds: string[], named = false): Promise<RecordPhone[]> {
  if (recordIds.length === 0) return []
  const mayReadWords = sql`(${consentEntry.messageId} is null or ${mayReadEntry(asker, sql`${message.activityId}`)})`
  const rows = await read(database =>
    database
      .select({
        id: phone.id,
        label: phone.label,
        typed: phone.typed,
        e164: phone.e164,
        country: phone.country,
        kind: phone.kind,
        extension: phone.extension,
        unusable: phone.unusable,
        texts: numberState.texts,
        calls: numberState.calls,
        consentAt: milliseconds(consentEntry.at),
        how: consentEntry.how,
        words: sql<string | null>`case when ${mayReadWords} then ${consentEntry.words} end`,
        line: sql<string | null>`case when ${mayReadWords} then ${line.name} end`,
        lastHeardAt: milliseconds(numberState.lastHeardAt),
        place: { zone: record.zone, country: record.country, region: record.region },
        person: { id: record.id, name: record.name, firstName: sql<string>`coalesce(${record.firstName}, ${record.name})` },
      })
      .from(phone)
      .innerJoin(record, eq(record.id, phone.recordId))
      .leftJoin(numberState, eq(numberState.e164, phone.e164))
      .leftJoin(consentEntry, eq(consentEntry.id, numberState.textsEntryId))
      .leftJoin(message, eq(message.id, consentEntry.messageId))
      .leftJoin(conversation, eq(conversation.id, message.conversationId))
      .leftJoin(line, eq(line.id, conversation.lineId))
      .where(sql`${phone.recordId} = any(${uuidArray(recordIds)})`)
      .orderBy(sql`array_position(${uuidArray(recordIds)}, ${phone.recordId})`, phone.position),
  )
  return rows.map(({ texts, calls, consentAt, how, words, line, place, person, ...known }) => ({
    ...known,
    zones: zonesOf(place, known.e164),
    mayBeCalled: calls !== 'refused',
    consent: { texts: texts ?? 'unknown', at: consentAt, how, words, line },
    person: named ? person : null,
  }))
}

/** Rules of the zones around now, for clocks in the browser. */
export function clockRules(names: Iterable<string>, now: Date, back = 0): ZoneRules[] {
  const month = 31 * 86_400_000
  return [...new Set(names)].flatMap((name) => {
    const rules = zoneRules(name)
    return rules ? [rulesBetween(rules, now.getTime() - back, now.getTime() + 12 * month)] : []
  })
}

/** The numbers that a record has and that can be used. */
export async function numbersOf(recordId: string): Promise<string[]> {
  const rows = await read(database =>
    database
      .selectDistinct({ e164: phone.e164 })
      .from(phone)
      .where(and(eq(phone.recordId, recordId), isNotNull(phone.e164))),
  )
  return rows.map(({ e164 }) => e164!)
}

/** Records that hold a number. */
export async function recordsWithNumber(e164: string): Promise<string[]> {
  const { rows } = await read(database => database.execute<{ record_id: string }>(sql`select distinct record_id from ${phone}
    where e164 = ${e164}`))
  return rows.map(row => row.record_id)
}
