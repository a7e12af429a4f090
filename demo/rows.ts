import { randomBytes } from 'node:crypto'
import type { activity, activityContent, activityOnRecord, consentEntry, contact, conversation, message, numberState, phone, record, recordPerson, textMessage } from '../server/db/schema'

/** Rows of the demo, gathered before they are written. */
export class Rows {
  readonly records: (typeof record.$inferInsert)[] = []
  readonly links: (typeof recordPerson.$inferInsert)[] = []
  readonly phones: (typeof phone.$inferInsert)[] = []
  readonly conversations = new Map<string, typeof conversation.$inferInsert>()
  readonly messages: (typeof message.$inferInsert)[] = []
  readonly measured: (typeof textMessage.$inferInsert)[] = []
  readonly activities: (typeof activity.$inferInsert)[] = []
  readonly contents: (typeof activityContent.$inferInsert)[] = []
  readonly shown: (typeof activityOnRecord.$inferInsert)[] = []
  readonly contacts = new Map<string, typeof contact.$inferInsert>()
  readonly consents: (typeof consentEntry.$inferInsert)[] = []
  readonly numbers = new Map<string, typeof numberState.$inferInsert>()

  touch({ id: recordId, module }: Pick<typeof record.$inferInsert, 'id' | 'module'>, at: Date): void {
    const known = this.contacts.get(recordId)
    if (!known || known.at < at) this.contacts.set(recordId, { recordId, module, at })
  }
}

/** A UUIDv7 (RFC 9562) of a moment in the past, so that ids of the demo sort by time as real ones do. */
export function idAt(at: Date): string {
  const bytes = randomBytes(16)
  bytes.writeUIntBE(at.getTime(), 0, 6)
  bytes[6] = (bytes[6]! & 0x0F) | 0x70
  bytes[8] = (bytes[8]! & 0x3F) | 0x80
  const hex = bytes.toString('hex')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}
