import type { KnockKind } from '~~/core/knock/kinds'
import { callBackDue } from './kinds/call-back-due'
import { hotAnswer } from './kinds/hot-answer'
import { question } from './kinds/question'
import { secondMissedCall } from './kinds/second-missed-call'
import { waitsTooLong } from './kinds/waits-too-long'
import type { KnockSource } from './source'

/** When each kind of thing knocks. */
const SOURCES: Record<KnockKind, KnockSource> = {
  'question': question,
  'second-missed-call': secondMissedCall,
  'hot-answer': hotAnswer,
  'call-back-due': callBackDue,
  'waits-too-long': waitsTooLong,
}

export const KNOCK_SOURCES = Object.entries(SOURCES) as [KnockKind, KnockSource][]
