import type { KnockKind } from '~~/core/knock/kinds'

/** Where somebody chooses the kinds that they want to hear of. */
export const KNOCK_CHOICES: Record<KnockKind, { choice: string, hint: string }> = {
  'question': { choice: 'A question in a text', hint: 'to you, of your people, or on your own line.' },
  'second-missed-call': { choice: 'A second call that nobody took', hint: 'while they still wait for the first one.' },
  'hot-answer': { choice: 'The first answer of a hot lead', hint: 'which tags make a lead hot is a house rule.' },
  'call-back-due': { choice: 'A call-back that is due', hint: 'at the minute for which it was promised.' },
  'waits-too-long': { choice: 'Somebody who waits too long', hint: 'on the lines that you lead; how long that is is a house rule.' },
}
