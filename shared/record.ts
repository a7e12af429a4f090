import type { CONSENT_WAYS, ConsentEntry } from '../core/consent/ledger'
import type { TaskDetail } from './calling'
import type { WallMoment } from '../core/hours/schedule'
import type { ZoneRules } from '../core/hours/rules'
import type { Field } from '../core/template/fields'
import type { PhoneKind, UnusableReason } from '../core/phone/read'
import type { GroupOn } from './groups'
import type { Module } from './modules'
import type { Pipeline, Stage } from './pipelines'

export interface RecordRow {
  id: string
  module: Module
  name: string
  firstName: string | null
  lastName: string | null
  title: string | null
  stage: string | null
  street: string | null
  city: string | null
  region: string | null
  postcode: string | null
  country: string | null
  mail: string | null
  tags: string[]
  /** The names of the groups that it is in, where they are asked for. */
  groups?: string[]
  fields: Record<string, unknown>
  owner: { id: string, name: string }
  company: { id: string, name: string, sector: string | null } | null
  pipeline: { id: string, name: string } | null
  /** The names of the people on it, with commas between. */
  people: string | null
  /** The deal, job or case on which it hangs. */
  about: string | null
  over: boolean
  phone: string | null
  /** The id of that number, if it may be called. */
  phoneToCall: string | null
  optedOut: boolean
  lastContactAt: number | null
  madeAt: number
}

export interface RecordPage { rows: RecordRow[], page: number, size: number }

export interface RecordPhone {
  id: string
  label: string
  typed: string
  e164: string | null
  country: string | null
  kind: PhoneKind
  extension: string | null
  /** `not-theirs`: a colleague has found it to be somebody else's. */
  unusable: UnusableReason | 'not-theirs' | null
  /** Every zone the person may be in with this number; names of `zones` of the record. */
  zones: string[]
  consent: { texts: 'unknown' | 'agreed' | 'refused', at: number | null, how: string | null, words: string | null, line: string | null }
  /** Nobody there has asked for no calls. */
  mayBeCalled: boolean
  lastHeardAt: number | null
  /** Whose it is, where it is one of the people on the record and not the record's own. */
  person: { id: string, name: string, firstName: string } | null
}

/** A line of a number's ledger, as it is read. */
export interface LedgerEntry extends ConsentEntry {
  how: typeof CONSENT_WAYS[number]
  words: string | null
  /** The line of ours to which it was written. */
  line: string | null
  /** The colleague who wrote it down. */
  by: string | null
}

/** A person of a company, or on a deal, a job, a case or something with a day. */
export interface PersonOn {
  id: string
  name: string
  title: string | null
  module: Module
  /** Where a candidate stands in this job. */
  stage: string | null
}

/** Something that belongs to this record: a deal that a person is on, an appointment of a company. */
export interface Related {
  id: string
  module: Module
  name: string
  stage: string | null
  over: boolean
  /** Its day, of what has one. */
  day: string | null
  time: string | null
  /** Where this person stands in it, of a job. */
  standing: string | null
}

export interface RecordDetail {
  id: string
  module: Module
  name: string
  firstName: string | null
  lastName: string | null
  title: string | null
  stage: Stage | null
  street: string | null
  city: string | null
  region: string | null
  postcode: string | null
  country: string | null
  zone: string | null
  wishFrom: number | null
  wishTo: number | null
  mail: string | null
  tags: string[]
  groups: GroupOn[]
  fields: Record<string, unknown>
  version: number
  madeAt: number
  stageSince: number | null
  lastContactAt: number | null
  owner: { id: string, name: string, firstName: string }
  company: { id: string, name: string } | null
  pipeline: Pipeline | null
  about: { id: string, name: string, module: Module } | null
  /** The stages that it can be in, in their order. */
  stages: Stage[]
  people: PersonOn[]
  related: Related[]
  scheduled: ScheduledText[]
  /** What is still to be done, the next first. */
  tasks: TaskDetail[]
  /** Its own, and after them those of the people on it. */
  phones: RecordPhone[]
  /** The module's own fields, in order. */
  customFields: Field[]
  /** Who else has one of its own numbers. */
  sharing: SharedNumber[]
  mayEdit: boolean
  zones: ZoneRules[]
}

/** Another record with the same number. */
export interface SharedNumber { e164: string, id: string, name: string }

/** A text that is to leave later. */
export interface ScheduledText extends WallMoment {
  id: string
  activityId: string
  words: string | null
  leavesAt: number
  authorId: string
  author: string
  /** It will be held: texts have been refused since it was written. */
  optedOut: boolean
}

/** A record to choose. */
export interface NamedRecord { id: string, name: string, module: Module, about: string | null }

/** Records that may be the same as one that is being written down, or that share a number with it. */
export interface Alike {
  /** Those that I may see, at most a few. */
  records: { id: string, name: string, module: Module, about: string | null, by: 'number' | 'mail' | 'name', number: string | null }[]
  /** Teams whose records have one of the numbers, though I may not see them. */
  elsewhere: { number: string, team: string }[]
}
