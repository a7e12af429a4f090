import type { LeftOutReason, NumberWay } from '../core/bulk/fate'
import type { BulkStanding, BulkTextState, PaceChange } from '../core/bulk/states'
import type { MessageState } from '../core/message/states'
import type { Busiest } from '../core/plan/answers'
import type { LeftWhy } from '../core/plan/plan'
import type { PlanRun } from '../core/plan/run'
import type { FillIn } from '../core/template/fill-ins'
import type { Topic } from '../core/request/topics'
import type { NationalLanguage } from '../core/text/national'
import type { TextedModule } from './modules'

/** More than anybody answers in months. */
export const MOST_IN_BULK = 100_000

/** As many answers to a bulk text as are gathered by what they ask. */
export const MOST_ASKING = 1_000

/** Over how many days it can be spread. */
export const MOST_DAYS = 14

/** How many stand where. */
export type BulkCounts = Record<BulkStanding, number>

export interface BulkTextHead {
  id: string
  name: string
  /** What its people are, most of them first. */
  modules: TextedModule[]
  state: BulkTextState
  people: number
  madeAt: number
  madeBy: { id: string, firstName: string }
  startedAt: number | null
  endedAt: number | null
  counts: BulkCounts
}

/** How many are left out for a reason. */
export interface LeftOut { reason: LeftOutReason, people: number, /** What is missing, of empty fields. */ detail: string | null }

/** Somebody who has written since a bulk text went to them, and waits for an answer. Instants are epoch milliseconds. */
export interface WhoAsks {
  recordId: string
  name: string
  conversationId: string
  /** All that they have written since they wait. */
  words: string
  at: number
}

/** Who asks for the same; a topic, or the word that they have in common. */
export interface AskedTheSame { topic: Topic | null, word: string | null, people: WhoAsks[] }

/** What those ask who have answered a bulk text and wait, gathered by what they ask for. */
export interface BulkAsked {
  same: AskedTheSame[]
  /** Who asks what nobody else does, and who asks nothing. */
  alone: WhoAsks[]
  other: WhoAsks[]
  /** There are more of them than are looked at. */
  more: boolean
}

/** A text as somebody would get it. */
export interface BulkSample { recordId: string, name: string, words: string, units: number, parts: number }

/** One audience of an occasion, and how many of those who got it have answered. */
export interface BulkAudience { id: string, name: string, state: BulkTextState, answered: Hits }

export interface BulkTextDetail extends BulkTextHead {
  body: string
  template: { id: string, name: string, version: number } | null
  fillIns: FillIn[]
  answers: Record<string, unknown>
  lineId: string | null
  /** Whoever has no usual line is texted over any that suits. */
  spread: boolean
  numberWay: NumberWay
  numberLabel: string
  pictureIds: string[]
  latelyDays: number
  /** How many of a hundred are held back by chance. */
  holdOut: number
  occasion: string
  place: string
  eventAt: number | null
  days: number
  /** How many of its people have been checked. */
  checked: number
  /** Why it has paused by itself. */
  why: string | null
  leftOut: LeftOut[]
  /** How many have written since it went to them. */
  answered: number
  /** How many answers an hour it goes by; null: as fast as its lines. */
  answersAnHour: number | null
  /** Since when it waits because answers have piled up. */
  waitsSince: number | null
  /** How its pace has changed, the newest first. */
  pace: BulkPace[]
  /** All that are about the same occasion, this one among them; none where it stands alone. */
  audiences: BulkAudience[]
  /** The bulk text whose questions it answers. */
  answersTo: { id: string, name: string } | null
  /** Where it repeats another one: how many came to its people since, and how many went. */
  repeats: { came: number, gone: number } | null
  mayRepeat: boolean
  /** Of those who can be texted: how many we have texted within the days that count. */
  lately: number
  /** How many need so many parts; of one under way, which is read over and over, this and what follows is not asked. */
  parts: Record<number, number>
  /** What all of it will cost, where the carriers have a price. */
  cost: { micros: number, currency: string } | null
  longest: BulkSample | null
  /** What became of those that are on their way, by the state of the text. */
  states: Record<string, number>
  /** When each leaves, and where they are; nothing and nobody before it is started. */
  runs: PlanRun[] | null
  places: PlanPlace[]
}

/** A stretch of time in which nobody of a place is texted. */
export interface Closed { from: number, to: number }

/** People who may be in the same zones and are reached in the same hours, whatever their lines and wishes. */
export interface PlanPlace {
  zones: string[]
  /** Countries, states and provinces: ISO 3166-2. */
  regions: string[]
  people: number
  /** Of the runs, those that are theirs. */
  groupIds: string[]
  closed: Closed[]
}

/** One change of a bulk text's pace: how many answers waited then, and how many an hour it goes by from then on. Epoch milliseconds. */
export interface BulkPace { at: number, what: PaceChange, waiting: number, anHour: number | null }

/** What similar texts brought, and what that means for this plan. */
export interface ExpectedAnswers {
  /** Of those before it; few, where little is known. */
  brought: Hits
  /** Within which half of the answers came, milliseconds; null where none is known. */
  medianMs: number | null
  /** In the hour in which most come. */
  busiest: Busiest | null
  /** How many colleagues answer the lines over which it goes. */
  answering: number
}

/** When each would leave, if it were started so. */
export interface BulkPlan {
  /** When it would start, at the earliest now. */
  start: number
  days: number
  event: number | null
  runs: PlanRun[]
  last: number | null
  /** The latest start at which all of it is out before the event; null where none is early enough, or there is no event. */
  latestStart: number | null
  left: { why: LeftWhy, people: number }[]
  places: PlanPlace[]
  lines: { id: string, name: string, everyMs: number, perDay: number | null, newMost: number | null, people: number }[]
  expected: ExpectedAnswers
  /** Where not all are reached in time: spread over which lines how many would be left then; null where that does not help. */
  spread: { lines: string[], left: number } | null
}

export interface BulkPersonRow {
  recordId: string
  name: string
  company: string | null
  city: string | null
  standing: BulkStanding
  reason: LeftOutReason | null
  detail: string | null
  lately: boolean
  /** A number was chosen, or words were written, for them alone. */
  own: boolean
  number: string | null
  line: string | null
  /** What they have written and wait with, where they are answered. */
  asked: string | null
  words: string | null
  units: number | null
  parts: number | null
  /** Of the text that is on its way. */
  state: string | null
  sentAt: number | null
  answeredAt: number | null
  /** A colleague has said so; nothing came in. */
  answerNoted: boolean
}

/** Somebody in a bulk text that has not been started, with what can be changed for them alone. */
export interface BulkOne {
  recordId: string
  name: string
  words: string | null
  /** Whether these are words for them alone. */
  ownWords: boolean
  /** On which number they would get it; null if on none. */
  phoneId: string | null
  /** Whether it was chosen for them alone. */
  ownPhone: boolean
  numbers: { phoneId: string, label: string, number: string, takesTexts: boolean }[]
  /** Whose national tables the carrier of their line knows. */
  languages: readonly NationalLanguage[]
}

/** How many there are in all, the counts of the bulk text say. */
export interface BulkPeople { rows: BulkPersonRow[], page: number, size: number }

/** How many of how many. */
export interface Hits { hits: number, of: number }

/** What became of it. Shares are of those who got it; a share of those who were held back stands beside them. */
export interface BulkResults {
  /** Those that did not arrive, by why. */
  failed: { state: MessageState, code: string | null, people: number }[]
  answered: Hits
  optedOut: Hits
  /** How long half of those who answered took at most, milliseconds; null as long as nobody has. */
  medianMs: number | null
  cost: { micros: number, currency: string } | null
  /** How many of those held back have written within the same days; null where nobody was. */
  heldOut: Hits | null
  /** Within how many days an answer counts. */
  days: number
}

export interface BulkStarted { leaves: number, left: { why: LeftWhy, people: number }[] }

/** What came of gathering more people: how many came to it, how many were met again, and how many are in it now. */
export interface AddedToBulk { added: number, again: number, people: number }
