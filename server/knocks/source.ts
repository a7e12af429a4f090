import type { KnockStep } from '~~/core/knock/kinds'
import type { HouseRulesForm } from '~~/shared/schemas/house-rules'
import type { SignedIn } from '../identity/sign-in'
import type { OpenConversation } from '../texting/conversations'

/** Something came in in a conversation, which owes an answer since. */
export interface CameIn extends OpenConversation {
  what: 'text' | 'missed-call' | 'voicemail'
  words: string
  at: Date
}

/** What the clock has brought up. */
export interface Due {
  about: { conversationId: string } | { taskId: string }
  /** By which it knocks once, however often it is found. */
  once: string
  words: string
  /** When it became due. */
  at: Date
  step: KnockStep
  whom: SignedIn[]
}

/** When one kind of thing knocks: a file in `kinds/`, and a line in the registry. */
export interface KnockSource {
  /** Whether what came in calls for action at once. */
  cameIn?: (came: CameIn) => Promise<boolean>
  /** What has become due by the clock and has not knocked yet. */
  due?: (rules: HouseRulesForm, now: Date) => Promise<Due[]>
}
