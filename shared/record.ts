import type { ZoneRules } from '../core/hours/rules'
import type { Field } from '../core/template/fields'
import type { PhoneKind, UnusableReason } from '../core/phone/read'
import type { Module } from './modules'

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
  fields: Record<string, unknown>
  owner: { id: string, name: string }
  company: { id: string, name: string } | null
  phone: string | null
  optedOut: boolean
  lastContactAt: number | null
  madeAt: number
}

export interface RecordPage { rows: RecordRow[], total: number, page: number, size: number }

export interface RecordPhone {
  id: string
  label: string
  typed: string
  e164: string | null
  country: string | null
  kind: PhoneKind
  extension: string | null
  unusable: UnusableReason | null
  /** Every zone the person may be in with this number; names of `zones` of the record. */
  zones: string[]
  consent: { texts: 'unknown' | 'agreed' | 'refused', at: number | null, how: string | null, words: string | null, line: string | null }
  lastHeardAt: number | null
}

export interface RecordDetail {
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
  zone: string | null
  mail: string | null
  tags: string[]
  fields: Record<string, unknown>
  version: number
  madeAt: number
  lastContactAt: number | null
  owner: { id: string, name: string, firstName: string }
  company: { id: string, name: string } | null
  people: { id: string, name: string, title: string | null, module: Module }[]
  phones: RecordPhone[]
  /** The module's own fields, in order. */
  customFields: Field[]
  mayEdit: boolean
  zones: ZoneRules[]
}
