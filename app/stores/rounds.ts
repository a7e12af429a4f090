import { defineStore } from 'pinia'
import type { MyRound } from '~~/shared/rounds'
import type { Saying } from '~~/shared/schemas/round'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useAhead } from './ahead'
import { useCalls } from './calls'

/** The call round I am on: whom I have in hand, and who comes next. */
export const useRounds = defineStore('rounds', () => {
  const calls = useCalls()
  const ahead = useAhead()
  const mine = shallowRef<MyRound | null>(null)
  const { problem, busy, trying: tryingTo } = useTrying()
  /** When whoever is in hand is dialled by itself; null if that waits for a key. */
  const dialsAt = ref<number | null>(null)

  let changes = 0
  /** What the round became by what I did. */
  function become(round: MyRound | null): void {
    changes++
    mine.value = round
  }

  async function load(): Promise<void> {
    const before = changes
    // what could not be loaded comes with the next notice
    const answer = await api<{ round: MyRound | null }>('/api/rounds/mine').catch(() => null)
    if (!answer) return
    // what was read before I did something says nothing any more
    if (before !== changes) return load()
    mine.value = answer.round
  }

  async function trying(work: () => Promise<void>): Promise<boolean> {
    const went = await tryingTo(work)
    if (!went) await load()
    return went
  }

  const handOut = async (roundId: string) => become(await api<MyRound>(`/api/rounds/${roundId}/next`, { method: 'POST', body: {} }))

  /** Whoever is next, with their page; dialled as the round says. Joins a round that I am not on yet. */
  const next = (roundId = mine.value?.id) => trying(async () => {
    if (!roundId) return
    wait()
    await handOut(roundId)
    callAsSet()
    await openPage()
  })

  /** Goes to whoever is next once it is said how it went with the one before; until then everything stays as it is. */
  const nextAfter = (said: Promise<boolean>) => trying(async () => {
    wait()
    if (!await said || !mine.value) return
    if (!mine.value.inHand) await handOut(mine.value.id)
    callAsSet()
    await openPage()
  })

  async function openPage(): Promise<void> {
    if (mine.value?.inHand) await navigateTo(`/record/${mine.value.inHand.recordId}`)
  }

  function callAsSet(): void {
    const { inHand, pauseSeconds } = mine.value ?? {}
    if (!inHand || mine.value?.state !== 'open' || calls.ringing.length > 0) return
    if (pauseSeconds === 0) void dial()
    else if (pauseSeconds) dialIn(pauseSeconds)
  }

  let timer: ReturnType<typeof setTimeout> | undefined
  function dialIn(seconds: number): void {
    dialsAt.value = Date.now() + seconds * 1_000
    timer = setTimeout(() => void dial(), seconds * 1_000)
  }

  /** Does not dial by itself: somebody wants to read first. */
  function wait(): void {
    clearTimeout(timer)
    dialsAt.value = null
  }

  async function dial(): Promise<void> {
    wait()
    const { id, inHand } = mine.value ?? {}
    if (!id || !inHand || calls.on) return
    await calls.dial({ phoneId: inHand.phoneId, name: inHand.name, roundId: id })
    // whoever could not be called may be in somebody else's hand by now
    if (calls.problem) await load()
  }

  const say = (what: Exclude<Saying, 'again'>) => trying(async () => {
    const { id, inHand } = mine.value ?? {}
    if (!id || !inHand) return
    wait()
    await api(`/api/rounds/${id}/people/${inHand.recordId}`, { method: 'POST', body: { say: what } })
  }).then(went => went ? next() : undefined)

  const leave = () => trying(async () => {
    if (!mine.value) return
    wait()
    await api(`/api/rounds/${mine.value.id}/leave`, { method: 'POST', body: {} })
    become(null)
  })

  /** The call of the round that is over, while it is to be said how it went. */
  const ended = computed(() =>
    calls.on ? null : (calls.calls.find(call => call.mine && call.roundId === mine.value?.id && !call.disposition)?.id ?? null),
  )
  // the moment to have the next person in hand, and their page ready
  watch(ended, (callId) => {
    if (callId && mine.value?.state === 'open' && !mine.value.inHand) void handOut(mine.value.id).catch(() => undefined)
  })
  watch(() => mine.value?.inHand?.recordId, recordId => recordId && ahead.load(recordId))

  // whoever is called by hand is not called once more by itself; a caller who rings meanwhile comes first, and a round that
  // somebody has paused calls nobody
  watch(() => calls.on !== null || calls.ringing.length > 0 || mine.value?.state !== 'open', stands => stands && wait())

  return { mine, problem, busy, dialsAt, ended, load, next, nextAfter, wait, dial, say, leave }
})
