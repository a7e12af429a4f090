import { v7 as uuid } from 'uuid'
import type { AuditAction } from '~~/shared/audit'
import { tx } from '../db/door'
import { audit } from '../db/schema'

/** Writes into the audit log: sign-ins, rights, set-up, exports. What happens to records is on their timelines. */
export async function note(
  action: AuditAction,
  colleagueId: string | null,
  at: Date,
  details: Record<string, unknown> = {},
): Promise<void> {
  await tx(database => database.insert(audit).values({ id: uuid(), at, colleagueId, action, details }))
}
