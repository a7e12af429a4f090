import { defineStore } from 'pinia'
import type { TimelinePage } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { openRecord, type Opening } from '~/composables/opening'

type Page = Opening & { timeline: Promise<TimelinePage> }

/** The page of whoever comes next, loaded before anybody goes there, and anew when something happens to them. */
export const useAhead = defineStore('ahead', () => {
  let next: { recordId: string, page: Page } | null = null

  function load(recordId: string): void {
    const page = { ...openRecord(recordId), timeline: api<TimelinePage>(`/api/records/${recordId}/timeline`) }
    next = { recordId, page }
    // what could not be loaded ahead is asked for when somebody goes there
    for (const part of Object.values(page)) part.catch(() => next?.page === page && (next = null))
  }

  /** What was loaded of a page, once; null if nothing was. */
  function take(recordId: string): Page | null {
    const page = next?.recordId === recordId ? next.page : null
    next = null
    return page
  }

  useLive((notice) => {
    if (next && 'recordId' in notice && notice.recordId === next.recordId) load(next.recordId)
  }, () => next && load(next.recordId))

  return { load, take }
})
