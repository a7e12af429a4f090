import { showPhone } from '~~/core/phone/show'
import type { KnockKind } from '~~/core/knock/kinds'
import type { Knock } from '~~/shared/knocks'
import { span } from './time'

interface Words {
  /** What is done about it. */
  act: 'answer' | 'call'
  /** After the name of who it is. */
  say: (knock: Knock, now: number) => string
}

export const KNOCK_WORDS: Record<KnockKind, Words> = {
  'question': {
    act: 'answer',
    say: ({ words, times }) => times > 1 ? `has written ${times} times: ${words}` : `asks: ${words}`,
  },
  'second-missed-call': {
    act: 'call',
    say: ({ times }) => times > 1 ? `has called ${times + 1} times, and nobody answered` : 'has called twice, and nobody answered',
  },
  'hot-answer': {
    act: 'answer',
    say: ({ words }) => `answers for the first time: ${words || 'a picture'}`,
  },
  'call-back-due': {
    act: 'call',
    say: ({ words }) => `is to be called back now: ${words}`,
  },
  'waits-too-long': {
    act: 'answer',
    say: ({ waitsSince, assignee, at }, now) => `waits ${span(now - (waitsSince ?? at))}, ${assignee ? `with ${assignee}` : 'with nobody'}`,
  },
}

export const ACT_WORDS = { answer: 'Answer', call: 'Call' } as const

export const knocker = ({ record, remote }: Pick<Knock, 'record' | 'remote'>): string => record?.name ?? (remote ? showPhone(remote) : 'Somebody')

/** "asks: Is the trike free? Nobody has taken it yet." */
export function sayKnock(knock: Knock, now: number): string {
  const said = KNOCK_WORDS[knock.kind].say(knock, now)
  return knock.step === 'owner' || knock.kind === 'waits-too-long' ? said : `${said} (nobody has taken it yet)`
}
