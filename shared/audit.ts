/** Everything that is noted in the audit log, by what it is about. What happens to records is on their timelines. */
export const AUDIT_GROUPS = {
  'sign-ins': ['signed-in', 'signed-out', 'signed-out-elsewhere', 'signed-out-everywhere-else', 'sign-in-refused', 'password-changed', 'second-step-set', 'second-step-ended', 'recovery-codes-made', 'recovery-code-used', 'own-phones-changed'],
  'people': [
    'firm-made', 'invited', 'invited-again', 'invitation-withdrawn', 'joined', 'new-password-offered', 'colleague-changed', 'colleague-left', 'colleague-back', 'second-step-taken-away',
    'team-made', 'team-renamed', 'right-changed',
  ],
  'texting': ['texting-switched', 'terms-written', 'terms-accepted'],
  'set-up': [
    'line-made', 'line-changed', 'line-stepped', 'line-told', 'line-porting-asked', 'line-porting-told', 'carrier-connected', 'carrier-changed', 'carrier-tried', 'carrier-removed', 'house-rules-changed',
    'papers-written', 'paper-file-added', 'paper-file-removed', 'papers-handed-in', 'papers-answered',
    'place-hours-set', 'place-hours-taken-back', 'holidays-set', 'closed-day-added', 'closed-day-removed',
    'field-made', 'field-changed', 'field-retired', 'field-taken-up', 'fields-ordered', 'pipeline-made', 'pipeline-changed', 'pipeline-removed',
    'disposition-made', 'disposition-changed', 'disposition-retired', 'disposition-taken-up', 'dispositions-ordered',
    'job-started-again', 'event-taken-after-all', 'event-let-be',
  ],
  'money': ['money-paid-in', 'money-account-changed', 'money-limit-set', 'money-limit-removed', 'money-asked'],
  'taken-out': ['exported', 'timeline-exported', 'audit-exported', 'recording-heard'],
  'many': [
    'imported', 'import-taken-back', 'bulk-made', 'bulk-started', 'bulk-pause', 'bulk-go-on', 'bulk-stop', 'bulk-done', 'bulk-pace', 'bulk-removed',
    'bulk-answer-noted', 'group-made', 'group-changed', 'group-removed', 'round-made', 'round-changed', 'round-turned',
  ],
  'words': [
    'template-retired', 'template-restored', 'spoken-made', 'spoken-changed', 'spoken-retired', 'message-named', 'entry-meant',
    'entry-shown-on', 'entry-taken-off',
  ],
} as const

export type AuditGroup = keyof typeof AUDIT_GROUPS
export type AuditAction = typeof AUDIT_GROUPS[AuditGroup][number]

/** One line of the log. */
export interface AuditEntry {
  id: string
  at: number
  action: AuditAction
  /** Who did it; null for Plauder itself, or a stranger. */
  by: string | null
  /** What it was done to, where that has a name of its own. */
  what: string | null
  details: Record<string, unknown>
}

/** A page of it, the newest first; `next` begins the page after it. */
export interface AuditPage { entries: AuditEntry[], next: string | null }
