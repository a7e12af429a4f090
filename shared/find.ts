import type { UnusableReason } from '../core/phone/read'
import type { ActivityKind } from '../core/timeline/kinds'

/** Something that was said, as it is found by its words. */
export interface Said { id: string, at: number, kind: ActivityKind, words: string, recordId: string, recordName: string }

/** What is known of something that may be the reference of a text. */
export type FoundRef
  = | { kind: 'found', ref: string, said: Said }
    /** Of what I have written and not sent. */
    | { kind: 'draft', ref: string, text: string, recordId: string | null, conversationId: string | null }
    /** A right reference, which no text has that may be seen. */
    | { kind: 'unknown', ref: string }
    | { kind: 'mistyped' }
    | { kind: 'no-ref' }

/** A number that is on no record: from which line it would be texted and when it was last in touch, or why it cannot be. */
export type Stranger = { kind: 'number', e164: string, line: string, last: { at: number, how: 'text' | 'call' } | null } | { kind: 'unusable', reason: UnusableReason | 'no-line' }
