import type { TimelineEntry, TimelinePage } from '~~/shared/timeline'
import { api, ApiProblem } from '~/composables/api'
import { useLive } from '~/composables/live'

/** A record's timeline on screen: its pages, and what comes live. */
export function useTimeline(recordId: string) {
  const entries = shallowRef<TimelineEntry[]>([])
  const more = ref(false)
  const state = ref<'loading' | 'ready' | 'failed'>('loading')
  const problem = ref('')
  const path = `/api/records/${recordId}/timeline`

  async function load(): Promise<void> {
    try {
      const page = await api<TimelinePage>(path)
      entries.value = page.entries
      more.value = page.more
      state.value = 'ready'
    }
    catch (error) {
      fail(error)
    }
  }

  async function loadOlder(): Promise<void> {
    const last = entries.value.at(-1)
    if (!last || !more.value) return
    try {
      const page = await api<TimelinePage>(path, { query: { beforeAt: last.at, beforeId: last.id } })
      merge(page.entries)
      more.value = page.more
    }
    catch (error) {
      fail(error)
    }
  }

  const wanted = new Set<string>()
  let fetching = false

  /** Fetches entries that came or changed; what is asked while one fetch is under way goes with the next. */
  async function refresh(id: string): Promise<void> {
    wanted.add(id)
    if (fetching) return
    fetching = true
    try {
      while (wanted.size > 0) {
        const only = [...wanted].slice(0, 50)
        for (const one of only) wanted.delete(one)
        merge((await api<TimelinePage>(path, { query: { only } })).entries)
      }
    }
    catch (error) {
      fail(error)
    }
    finally {
      fetching = false
    }
  }

  function merge(fresh: TimelineEntry[]): void {
    const byId = new Map(entries.value.map(entry => [entry.id, entry]))
    for (const entry of fresh) byId.set(entry.id, entry)
    entries.value = [...byId.values()].sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1))
  }

  function fail(error: unknown): void {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.message
    if (entries.value.length === 0) state.value = 'failed'
  }

  void load()
  useLive((notice) => {
    if (notice.kind === 'entry' && notice.recordId === recordId) void refresh(notice.activityId)
  }, () => void load())

  return { entries, more, state, problem, load, loadOlder, refresh }
}
