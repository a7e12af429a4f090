import type { LineState } from '../core/lines/life'
import type { PortingState } from '../core/lines/porting'
import type { Money } from '../core/numbers/money'
import type { FieldKind } from '../core/template/fields'
import type { Stage } from './pipelines'
import type { MoneyAccount } from './money'
import type { Permission } from './permissions'
import type { LineForm } from './schemas/line'

/** A field that the firm has added to a module, as Set-up shows it. */
export interface OwnField { id: string, key: string, label: string, kind: FieldKind, example: string, options: string[], retired: boolean }

/** A pipeline with how many stand in each stage, and how many records are in it: of a pipeline of candidates, jobs. */
export interface OwnPipeline { id: string, name: string, stages: (Stage & { count: number })[], records: number }

/** A carrier over which a line's texts can go. */
export interface CarrierChoice { name: string, title: string }

/** What a new line can be made of: the numbers that its carrier has given us, if it tells them, and whose it can be. */
export interface LineChoices {
  numbers: string[] | null
  /** More can be had from it here. */
  rents: boolean
  /** It brings numbers over that another carrier has. */
  brings: boolean
  teams: { id: string, name: string }[]
  colleagues: { id: string, name: string }[]
}

/** How far the bringing over of a number is. */
export interface LinePorting {
  from: string
  account: string
  wishedDay: string
  state: PortingState
  day: string | null
  words: string
  askedAt: number
}

/** A number of ours as Set-up shows it: with how it rings, and whose letters its carrier knows. */
export interface SetUpLine extends LineForm {
  id: string
  name: string
  e164: string
  country: string
  state: LineState
  /** When it is there, is paid for again, or ends; of one that has ended, when it did. Null where its carrier does not rent it out. */
  turnsAt: number | null
  /** A month. */
  rent: Money | null
  /** Its carrier rents it out: it is ended and taken up again there too. */
  rented: boolean
  private: boolean
  /** As long as its number is brought over from another carrier. */
  porting: LinePorting | null
  /** Who answers it, by name: one colleague or a team. */
  colleague: string | null
  team: string | null
}

/** A number that a carrier has to offer, and on what terms: a month costs its rent, the first also its set-up. */
export interface NumberOffered {
  e164: string
  country: string
  place: string
  does: ('text' | 'picture' | 'call')[]
  rent: Money
  setUp: Money
  /** In how many days it is there. */
  days: number
}

/** What of a line can be changed. */
export const lineFormOf = (line: SetUpLine): LineForm => ({
  carrier: line.carrier,
  standInId: line.standInId,
  languages: line.languages,
  records: line.records,
  ownerFirst: line.ownerFirst,
  ringOrder: line.ringOrder,
  takeOrder: line.takeOrder,
  greeting: line.greeting,
  busyGreeting: line.busyGreeting,
  ringSound: line.ringSound,
  ringSeconds: line.ringSeconds,
  hours: line.hours,
  textsAMinute: line.textsAMinute,
  textsADay: line.textsADay,
})

/** What is set up, counted. */
export interface SetUpFacts {
  textingOn: boolean
  colleagues: number
  teams: number
  /** Active ones, and those that are not. */
  lines: number
  closedLines: number
  withoutGreeting: number
  withoutPrice: number
  carriers: number
  /** Carriers that cannot be reached, by title. */
  away: string[]
  /** Papers that a carrier has sent back. */
  sentBack: number
  /** Numbers that another carrier did not let go. */
  portingsBack: number
  pipelines: number
  fields: number
  templates: number
  dispositions: number
  /** Modules that have any. */
  disposedModules: string[]
  stuck: number
  /** What is there to pay with, for an admin; empty for others. */
  money: MoneyAccount[]
  /** How many could not text for want of it. */
  asks: number
}

/** Something that keeps people from working, and where it is put right. */
export interface SetUpToDo { what: string, then: string, to: string | null, /** Who puts it right. */ needs: Permission | null }

/** Something that others take their time over. */
export interface SetUpWait {
  what: string
  /** Since when (instant), where it began here; until when, where that is said. */
  since: number | null
  until: number | null
  /** How long it usually takes, in days. */
  usual: { leastDays: number, mostDays: number } | null
  to: string
}

export interface SetUpFront { facts: SetUpFacts, toDo: SetUpToDo[], theirs: SetUpWait[] }
