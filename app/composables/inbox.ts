import { useDebounceFn } from '@vueuse/core'
import { INBOX_FILTERS, type InboxFilter, type InboxItem, type InboxPage, type InboxPlace } from '~~/shared/inbox'
import { api } from './api'
import { useLive } from './live'
import { newestOnly } from './newest'
import { useTrying } from './trying'

const SOON_MS = 200
/** A page that few belong to is looked for further back by itself, until so many are found or so many pages have been looked through. */
const ENOUGH = 20
const MOST_LOOKS = 10

/**
 * The inbox as its address says: which filters, which words, and which conversation is open, so that Back and a reload find
 * it. The list stays where it is while it is read anew; the newest answer counts.
 */
export function useInbox() {
  const route = useRoute()
  const router = useRouter()
  const said = (key: string) => typeof route.query[key] === 'string' ? route.query[key] : ''
  const show = computed(() => said('show').split(',').filter((one): one is InboxFilter => (INBOX_FILTERS as readonly string[]).includes(one)))
  const words = computed(() => said('words'))
  const lineId = computed(() => said('line'))
  const module = computed(() => said('module'))
  const openId = computed(() => said('with') || null)
  /** Whoever comes from a notice wants to answer. */
  const answers = computed(() => said('answer') !== '')

  const owed = shallowRef<InboxItem[] | null>(null)
  const others = shallowRef<InboxItem[]>([])
  /** Where to go on from; null at the end. */
  const next = shallowRef<InboxPlace | null>(null)
  const { problem, busy, trying } = useTrying()
  const begin = newestOnly()

  const asked = () => ({ show: show.value.join(), words: words.value, lineId: lineId.value, module: module.value || undefined })
  const fetchPage = (from: InboxPlace | null) =>
    api<InboxPage>('/api/inbox', { query: { ...asked(), ...from && { beforeAt: from.at, beforeId: from.id } } })

  /** Looks further back until there are so many, and shows what is found as it goes. */
  async function lookOn(isNewest: () => boolean, wanted: number): Promise<void> {
    for (let looks = 0; looks < MOST_LOOKS && next.value && others.value.length < wanted; looks++) {
      const page = await fetchPage(next.value)
      if (!isNewest()) return
      others.value = [...others.value, ...page.others]
      next.value = page.next
    }
  }
  /** What belongs to what is asked, from the newest. */
  const load = () => trying(async () => {
    const isNewest = begin()
    const page = await fetchPage(null)
    if (!isNewest()) return
    owed.value = page.owed
    others.value = page.others
    next.value = page.next
    await lookOn(isNewest, ENOUGH)
  })
  /** As far back as was looked before: whoever has walked far down stays there. */
  const loadAgain = () => trying(async () => {
    const isNewest = begin()
    const [shown, back] = [others.value.length, next.value?.at ?? -Infinity]
    const first = await fetchPage(null)
    let page = first
    let rest = page.others
    while (page.next && page.next.at > back && rest.length < shown) {
      page = await fetchPage(page.next)
      rest = [...rest, ...page.others]
    }
    if (!isNewest()) return
    owed.value = first.owed
    others.value = rest
    next.value = page.next
  })
  const showMore = () => trying(() => lookOn(begin(), others.value.length + ENOUGH))
  /** The day to which all were looked through, where that is further back than what is shown; null where it is not. */
  const lookedBackTo = computed(() => next.value && next.value.id !== others.value.at(-1)?.conversationId ? next.value.at : null)

  const items = computed(() => [...owed.value ?? [], ...others.value])
  const place = computed(() => items.value.findIndex(({ conversationId }) => conversationId === openId.value))

  /** Says it in the address; what is empty is left out. */
  function go(changed: Record<string, string | null>, replaces = false): void {
    const query = Object.fromEntries(Object.entries({ ...route.query, ...changed }).filter(([, value]) => value))
    void router[replaces ? 'replace' : 'push']({ query })
  }
  const open = (id: string | null) => go({ with: id, answer: null }, openId.value !== null)
  const toggle = (filter: InboxFilter) =>
    go({ show: (show.value.includes(filter) ? show.value.filter(one => one !== filter) : [...show.value, filter]).join() })

  /** What is left to do here: all that waits and that no colleague has. */
  const toDo = computed(() => (owed.value ?? []).filter(({ whose }) => whose !== 'colleague').map(({ conversationId }) => conversationId))
  /** These as they were when the one that is open stood among them: once it is dealt with, the next is the one that came after it. */
  const stoodAmong = shallowRef<string[]>([])
  watch(openId, () => stoodAmong.value = [], { flush: 'sync' })
  watch([openId, toDo], () => {
    if (toDo.value.includes(openId.value ?? '')) stoodAmong.value = toDo.value
  }, { immediate: true })
  /** Of those that are left the nearest one in that direction, however many have gone meanwhile. */
  function nearest(by: 1 | -1): string {
    const at = stoodAmong.value.indexOf(openId.value!)
    const onwards = by === 1 ? stoodAmong.value.slice(at + 1) : stoodAmong.value.slice(0, at).reverse()
    return onwards.find(id => toDo.value.includes(id)) ?? toDo.value.at(by === 1 ? -1 : 0)!
  }

  /** The one below or above the one that is open; the first, if none is. */
  function step(by: 1 | -1): void {
    if (stoodAmong.value.length > 0 && toDo.value.length > 0 && !toDo.value.includes(openId.value ?? '')) return open(nearest(by))
    const next = items.value[place.value < 0 ? 0 : place.value + by]
    if (next) open(next.conversationId)
  }

  // as words: opening a conversation changes the address too, and leaves the list as it is
  watch([() => show.value.join(), words, lineId, module], () => {
    others.value = []
    next.value = null
    void load()
  })
  const loadSoon = useDebounceFn(loadAgain, SOON_MS)
  useLive(notice => (notice.kind === 'conversation' || notice.kind === 'seen') && void loadSoon(), () => void loadAgain())
  void load()

  return {
    show, words, lineId, module, openId, answers, owed, others, items, place, next, lookedBackTo, problem, busy,
    load, showMore, go, open, toggle, step,
  }
}
