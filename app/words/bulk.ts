import type { LeftOutReason } from '~~/core/bulk/fate'
import type { BulkStanding, BulkTextState } from '~~/core/bulk/states'
import type { LeftWhy } from '~~/core/plan/plan'
import { many } from './count'

export const BULK_WORDS: Record<BulkTextState, string> = {
  draft: 'being written',
  checking: 'being checked',
  checked: 'checked, not started',
  running: 'under way',
  paused: 'paused',
  stopped: 'stopped',
  done: 'done',
}

export const STANDING_WORDS: Record<BulkStanding, string> = {
  'chosen': 'not checked',
  'ready': 'will get it',
  'left-out': 'left out',
  'taken-out': 'taken out',
  'held-out': 'held back',
  'texted': 'sent',
  'refused': 'refused',
}

/** Above a list of them. */
export const THOSE_WORDS: Record<BulkStanding, string> = {
  'chosen': 'Not checked yet',
  'ready': 'Those who will get it',
  'left-out': 'Those who are left out',
  'taken-out': 'Those who were taken out by hand',
  'held-out': 'Those who are held back by chance',
  'texted': 'Those to whom it was sent',
  'refused': 'Those to whom it was refused at the last moment',
}

interface Said {
  /** After how many: "31 have no number". */
  one: string
  many: string
  /** What else there is to know. */
  then: string
  /** Whether somebody could mend it. */
  mendable: boolean
}

/** Why somebody does not get it. */
export const LEFT_OUT_WORDS: Record<LeftOutReason, Said> = {
  'no-number': { one: 'has no number', many: 'have no number', then: 'write one on the record', mendable: true },
  'not-usable': { one: 'has no number that works', many: 'have no number that works', then: 'mistyped, or somebody else’s', mendable: true },
  'landline': { one: 'has a landline only', many: 'have a landline only', then: 'it takes no texts; they can be called', mendable: true },
  'opted-out': { one: 'has opted out', many: 'have opted out', then: 'stays so, nothing to do', mendable: false },
  'open-wish': { one: 'may want no texts', many: 'may want no texts', then: 'read what they wrote, and decide', mendable: true },
  'no-line': { one: 'is where none of our lines can text', many: 'are where none of our lines can text', then: 'choose another line for them', mendable: true },
  'no-pictures': { one: 'is texted over a line that takes no such pictures', many: 'are texted over a line that takes no such pictures', then: 'fewer or smaller ones, or none', mendable: true },
  'answered': { one: 'has been answered', many: 'have been answered', then: 'a colleague was quicker, or nothing was needed', mendable: false },
  'same-number': { one: 'shares a number with another', many: 'share a number with another', then: 'the first of them gets it; another number may do', mendable: true },
  'other-audience': { one: 'is in another audience', many: 'are in another audience', then: 'and get the text that is written for that one', mendable: false },
  'own-words-old': { one: 'has words of their own', many: 'have words of their own', then: 'written before it came to say something else; look at them', mendable: true },
  'empty-field': { one: 'has an empty field', many: 'have an empty field', then: 'and the text has no stand-in for it', mendable: true },
  'too-long': { one: 'would get too many parts', many: 'would get too many parts', then: 'more than the carrier takes', mendable: true },
  'zone-unknown': { one: 'is in a place that we do not know', many: 'are in a place that we do not know', then: 'so nobody knows when it is night there', mendable: true },
  'never-in-hours': { one: 'can be reached at no hour', many: 'can be reached at no hour', then: 'what they want and what is allowed have no hour in common', mendable: true },
  'after-event': { one: 'could not be reached in time', many: 'could not be reached in time', then: 'it would have left after the event', mendable: false },
}

/** What words or another number for somebody alone can mend. */
export const CHANGED_ALONE: readonly LeftOutReason[] = ['same-number', 'own-words-old', 'empty-field', 'too-long']

export const sayLeftOut = (reason: LeftOutReason, people: number): string => LEFT_OUT_WORDS[reason][people === 1 ? 'one' : 'many']

/** How those of a repeated one differ from those of the first. */
export function sayRepeated({ came, gone }: { came: number, gone: number }): string {
  const differs = [
    came > 0 && `with ${many(came, 'person', 'people')} who came since`,
    gone > 0 && `without ${many(gone, 'person', 'people')} who went`,
  ].filter(Boolean)
  return differs.length > 0 ? `The same as before, ${differs.join(' and ')}.` : 'The same as before, to the same people.'
}

export const LEFT_WHY_WORDS: Record<LeftWhy, string> = {
  'after-event': 'cannot be reached before it',
  'never-in-hours': 'cannot be reached at any hour: what they want and what is allowed have no hour in common',
}

/** Which people of a bulk text are shown. */
export interface Those { standing?: BulkStanding, reason?: LeftOutReason, lately?: boolean, answered?: 'yes' | 'no' }

export const ANSWERED_WORDS = {
  yes: { kind: 'answered', those: 'Those who have answered' },
  no: { kind: 'not answered', those: 'Those who have not answered' },
} as const
