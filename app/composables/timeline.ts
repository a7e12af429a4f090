import type { TimelineEntry, TimelinePage } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { asQuery, narrows, WHOLE, type SieveForm } from '~/composables/sieve'
import { problemIn } from '~/composables/trying'

/** So many entries are held at most: further ones take the place of those at the other end, which come again when they are near. */
export const MOST = 300

/**
 * A record's timeline on screen: its pages, and what comes live.
 *
 * @param around an entry in the middle, to begin there
 * @param ahead its first page, where that is on its way already
 */
export function useTimeline(recordId: string, around?: string, ahead?: Promise<TimelinePage>) {
  const entries = shallowRef<TimelineEntry[]>([])
  const more = ref(false)
  /** There are newer ones than those that are shown. */
  const newer = ref(false)
  const state = ref<'loading' | 'ready' | 'failed'>('loading')
  const problem = ref('')
  const path = `/api/records/${recordId}/timeline`
  /** To what it is narrowed. */
  const sieve = ref<SieveForm>({ ...WHOLE })
  const ask = (query: Record<string, unknown>) => api<TimelinePage>(path, { query: { ...asQuery(sieve.value), ...query } })

  /** Pages on their way, and entries that changed meanwhile: of these a page may bring an older state. */
  let onTheirWay = 0
  const changedMeanwhile = new Set<string>()

  async function arrival(page: Promise<TimelinePage>): Promise<TimelinePage> {
    onTheirWay++
    try {
      return await page
    }
    finally {
      onTheirWay--
      if (onTheirWay === 0) {
        for (const id of changedMeanwhile) void refresh(id)
        changedMeanwhile.clear()
      }
    }
  }

  const load = (from?: string) => show(ask(from ? { around: from } : {}))

  /** The day to which somebody has gone, once it is there. */
  const went = ref<string | null>(null)

  /** A day, `2026-11-25`, with what stands around it. */
  async function goTo(day: string): Promise<void> {
    went.value = null
    await show(ask({ on: day }))
    went.value = day
  }

  function narrow(to: SieveForm): void {
    sieve.value = to
    void load()
  }

  let asks = 0

  async function show(asked: Promise<TimelinePage>): Promise<void> {
    const own = ++asks
    try {
      const page = await arrival(asked)
      // somebody has gone on to something else meanwhile
      if (own !== asks) return
      problem.value = ''
      entries.value = page.entries
      more.value = page.more
      newer.value = page.newer
      state.value = 'ready'
    }
    catch (error) {
      fail(error)
    }
  }

  async function loadOlder(): Promise<void> {
    const last = entries.value.at(-1)
    if (!last || !more.value) return
    const own = asks
    try {
      const page = await arrival(ask({ beforeAt: last.at, beforeId: last.id }))
      if (own !== asks) return
      merge(page.entries)
      more.value = page.more
      if (entries.value.length > MOST) {
        entries.value = entries.value.slice(-MOST)
        newer.value = true
      }
    }
    catch (error) {
      fail(error)
    }
  }

  async function loadNewer(): Promise<void> {
    const first = entries.value[0]
    if (!first || !newer.value) return
    const own = asks
    try {
      const page = await arrival(ask({ afterAt: first.at, afterId: first.id }))
      if (own !== asks) return
      newer.value = page.newer
      merge(page.entries)
      if (entries.value.length > MOST) {
        entries.value = entries.value.slice(0, MOST)
        more.value = true
      }
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
        const { entries: fresh } = await ask({ only })
        take(fresh)
      }
    }
    catch (error) {
      fail(error)
    }
    finally {
      fetching = false
    }
  }

  /** What came or changed. From the middle of a timeline, what comes at its top is not next to what is shown. */
  function take(fresh: TimelineEntry[]): void {
    merge(newer.value ? fresh.filter(one => entries.value.some(({ id }) => id === one.id)) : fresh)
  }

  function merge(fresh: TimelineEntry[]): void {
    const byId = new Map(entries.value.map(entry => [entry.id, entry]))
    for (const entry of fresh) byId.set(entry.id, entry)
    entries.value = [...byId.values()].sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1))
  }

  function fail(error: unknown): void {
    problem.value = problemIn(error).message
    if (entries.value.length === 0) state.value = 'failed'
  }

  void (ahead && !around ? show(ahead) : load(around))
  useLive((notice) => {
    if (notice.kind !== 'entry' || notice.recordId !== recordId) return
    if (onTheirWay > 0) changedMeanwhile.add(notice.activityId)
    // while it is being fetched, which may bring an older one of it, it is fetched once more
    else if (notice.entry && !fetching && !narrows(sieve.value)) take([notice.entry])
    else void refresh(notice.activityId)
  }, () => void load(newer.value ? around : undefined))

  return { entries, more, newer, state, problem, sieve, load, loadOlder, loadNewer, refresh, went, goTo, narrow }
}
