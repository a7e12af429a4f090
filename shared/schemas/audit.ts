import { object, string, type InferType } from 'yup'
import { AUDIT_GROUPS, type AuditGroup } from '../audit'
import { day, idOf, line } from './common'

const GROUPS = Object.keys(AUDIT_GROUPS) as AuditGroup[]

const asked = {
  group: string().oneOf(GROUPS).nullable().default(null),
  /** Who did it. */
  by: idOf('colleague').nullable().default(null),
  words: line(100).default(''),
  from: day().nullable().default(null),
  to: day().nullable().default(null),
}

export const auditQuery = object({
  ...asked,
  /** The last entry of the page before. */
  after: idOf('audit-entry').nullable().default(null),
})
export type AuditQuery = InferType<typeof auditQuery>

export const auditExport = object(asked)
export type AuditExport = InferType<typeof auditExport>
