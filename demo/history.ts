import type { OwedFor } from '../core/owed/owed'
import { measureText } from '../core/text/measure'
import { idAt, type Rows } from './rows'

export interface Person { id: string, companyId: string | null, e164: string | null, name: string }
export interface LineRow { id: string, e164: string, private: boolean }

/** Writes what happened with people, entry by entry, as the use cases would have. */
export class History {
  constructor(private readonly rows: Rows) {}

  text(person: Person, line: LineRow, side: 'ours' | 'theirs', words: string, at: Date, authorId: string, from?: { templateId: string, version: number }): void {
    const ours = side === 'ours'
    const { encoding, units, parts } = measureText(words)
    const messageId = idAt(at)
    const conversationId = this.conversation(line, person.e164!, at, ours ? null : at)
    Object.assign(this.rows.conversations.get(`${line.id} ${person.e164}`)!, ours ? { wentOut: true } : { cameIn: true })
    const activityId = this.entry(person, at, ours ? 'text-out' : 'text-in', ours ? authorId : null, { messageId, words, privateLineId: line.private ? line.id : null })
    this.rows.messages.push({
      id: messageId, kind: 'text', conversationId, activityId,
      direction: ours ? 'out' : 'in',
      origin: ours ? 'by-hand' : null,
      authorId: ours ? authorId : null,
      recordId: ours ? person.id : null,
      templateId: from?.templateId ?? null,
      templateVersion: from?.version ?? null,
      state: ours ? 'delivered' : 'received',
      costMicros: ours ? parts * 8_000 : null,
      currency: ours ? 'USD' : null,
      madeAt: at,
      leavesAt: new Date(at.getTime() + (ours ? 5_000 : 0)),
      carrier: 'practice',
      handedAt: ours ? new Date(at.getTime() + 5_000) : null,
      acceptedAt: ours ? new Date(at.getTime() + 6_000) : null,
      settledAt: ours ? new Date(at.getTime() + 8_000) : null,
    })
    this.rows.measured.push({ messageId, encoding, units, parts })
    if (!ours) this.number(person.e164!).lastHeardAt = at
  }

  call(person: Person, byThem: boolean, colleagueId: string, outcome: 'answered' | 'no answer' | 'voicemail', seconds: number, at: Date): void {
    this.entry(person, at, byThem ? 'call-in' : 'call-out', colleagueId, { data: { outcome, seconds } })
  }

  /** A call made with Plauder: what became of it stands in a row of its own. */
  ownCall(person: Person, direction: 'in' | 'out', colleagueId: string | null, at: Date): { callId: string, activityId: string } {
    const callId = idAt(at)
    return { callId, activityId: this.entry(person, at, direction === 'in' ? 'call-in' : 'call-out', colleagueId, { data: { callId } }) }
  }

  /** A call of theirs that nobody has answered is owed one. */
  callIsOwed({ e164 }: Person, line: LineRow, at: Date, why: 'missed-call' | 'voicemail'): void {
    this.conversation(line, e164!, at, at, why)
  }

  note(person: Person, colleagueId: string, words: string, at: Date): void {
    this.entry(person, at, 'note', colleagueId, { words })
  }

  stage(person: Person, colleagueId: string, from: string, to: string, at: Date): void {
    this.entry(person, at, 'stage-changed', colleagueId, { data: { from, to } })
  }

  made(person: Person, colleagueId: string, at: Date): void {
    this.entry(person, at, 'record-made', colleagueId, {})
  }

  consent(person: Person, kind: 'agreed' | 'refused', how: 'form' | 'text' | 'by-hand', words: string, at: Date, colleagueId: string | null = null): void {
    const entryId = idAt(at)
    this.rows.consents.push({ id: entryId, e164: person.e164!, at, kind, covers: 'texts', how, words, colleagueId })
    Object.assign(this.number(person.e164!), { texts: kind, textsEntryId: entryId })
    this.entry(person, at, 'consent-changed', colleagueId, { data: { kind, covers: 'texts', how }, words, content: { e164: person.e164 } })
  }

  private entry(person: Person, at: Date, kind: Rows['activities'][number]['kind'], colleagueId: string | null, more: { messageId?: string, words?: string, data?: Record<string, unknown>, content?: Record<string, unknown>, privateLineId?: string | null }): string {
    const id = idAt(at)
    this.rows.activities.push({ id, at, kind, colleagueId, messageId: more.messageId ?? null, data: more.data ?? {} })
    if (more.words !== undefined || more.content) this.rows.contents.push({ activityId: id, words: more.words ?? null, data: more.content ?? null })
    const shown = { at, activityId: id, privateLineId: more.privateLineId ?? null }
    this.rows.shown.push({ ...shown, recordId: person.id })
    if (person.companyId) this.rows.shown.push({ ...shown, recordId: person.companyId, viaRecordId: person.id })
    if (kind.startsWith('text') || kind.startsWith('call')) this.touch(person, at)
    return id
  }

  private touch(person: Person, at: Date): void {
    for (const id of [person.id, person.companyId]) {
      const found = id && this.rows.records.find(record => record.id === id)
      if (found) this.rows.touch(found, at)
    }
  }

  /** The newest side decides whether an answer is owed. */
  private conversation(line: LineRow, remote: string, at: Date, waitsSince: Date | null, why: OwedFor = 'text'): string {
    const key = `${line.id} ${remote}`
    const found = this.rows.conversations.get(key) ?? { id: idAt(at), kind: 'text' as const, lineId: line.id, remote, lastAt: at, waitsSince: null, waitsFor: null }
    found.lastAt = at
    found.waitsSince = waitsSince && (found.waitsSince ?? waitsSince)
    found.waitsFor = found.waitsSince && (found.waitsFor ?? why)
    this.rows.conversations.set(key, found)
    return found.id
  }

  private number(e164: string): NonNullable<ReturnType<Rows['numbers']['get']>> {
    const found = this.rows.numbers.get(e164) ?? { e164 }
    this.rows.numbers.set(e164, found)
    return found
  }
}
