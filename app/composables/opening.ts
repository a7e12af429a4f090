import type { ComposerStart } from '~~/shared/composer'
import type { RecordDetail } from '~~/shared/record'
import { api } from '~/composables/api'

/** What a record's page shows but for its timeline, on its way. */
export interface Opening {
  record: Promise<RecordDetail>
  /** What one could text them can come a moment later than who it is. */
  start: Promise<ComposerStart>
}

export function openRecord(recordId: string): Opening {
  const record = api<RecordDetail>(`/api/records/${recordId}`)
  const start = record.then(() => api<ComposerStart>(`/api/records/${recordId}/composer`))
  // whoever waits for the record hears that it failed
  start.catch(() => undefined)
  return { record, start }
}
