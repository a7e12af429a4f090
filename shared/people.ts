import type { Changeable, Role, Scope } from './permissions'

export interface Team { id: string, name: string }

/** A colleague as Set-up shows them. */
export interface SetUpColleague {
  id: string
  name: string
  mail: string
  role: Role
  title: string
  teamIds: string[]
  /** Until when somebody from outside helps (instant); null for all others. */
  helpsUntil: number | null
  /** When they left (instant); null as long as they work here. */
  leftAt: number | null
  /** A code is asked of them after their password. */
  secondStep: boolean
  /** When they signed in last, of the sign-ins that hold (instant). */
  here: number | null
}

/** Somebody who was given a link and has not used it. */
export interface Invited {
  id: string
  name: string
  mail: string
  role: Role
  title: string
  teamIds: string[]
  helpsUntil: number | null
  /** Until when the link works (instant); past: it does not any more. */
  endsAt: number
  /** Whether it is for a new password of a colleague. */
  newPassword: boolean
}

export interface SetUpPeople {
  colleagues: SetUpColleague[]
  teams: (Team & { people: number, lines: number })[]
  invited: Invited[]
}

/** What somebody has who leaves, counted: all of it goes to somebody else. */
export interface Holdings {
  records: number
  lines: number
  /** Conversations that were handed to them. */
  conversations: number
  tasks: number
  templates: number
  bulkTexts: number
  rounds: number
  /** Texts that they have scheduled: these leave as they were written. */
  scheduled: number
}

/** A link that was made just now: it is shown this once. */
export interface LinkMade { people: SetUpPeople, link: string, endsAt: number }

/** What a link says of whoever holds it. */
export interface Invitation { firm: string, name: string, mail: string, newPassword: boolean }

/** What one colleague may do more, or less, than others in their role. */
export interface PersonRight {
  colleagueId: string
  name: string
  role: 'rep' | 'lead'
  permission: Changeable
  scope: Scope
  /** What others in their role may do. */
  usual: Scope
}

export interface RightsOfAll {
  table: RightsTable
  people: PersonRight[]
  /** Of whom something of their own can be said. */
  colleagues: { id: string, name: string, role: 'rep' | 'lead' }[]
}

/** How far each right that can be changed reaches, and how far unless an admin says otherwise. */
export type RightsTable = { permission: Changeable, rep: Scope, lead: Scope, usual: { rep: Scope, lead: Scope } }[]
