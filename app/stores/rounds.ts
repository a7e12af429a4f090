import { defineStore } from 'pinia'
import type { MyRound } from '~~/shared/rounds'
import type { Saying } from '~~/shared/schemas/round'
import { api, ApiProblem } from '~/composables/api'
import { useCalls } from './calls'

/** The call round I am on: whom I have in hand, and who comes next. */
export const useRounds = defineStore('rounds', () => {
  const calls = useCalls()
  const mine = shallowRef<MyRound | null>(null)
  const problem = ref('')
  const busy = ref(false)
  /** When whoever is in hand is dialled by itself; null if that waits for a key. */
  const dialsAt = ref<number | null>(null)

  async function load(): Promise<void> {
    // what could not be loaded comes with the next notice
    const answer = await api<{ round: MyRound | null }>('/api/rounds/mine').catch(() => null)
    if (answer) mine.value = answer.round
  }

  async function trying(work: () => Promise<void>): Promise<void> {
    problem.value = ''
    busy.value = true
    try {
      await work()
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
      await load()
    }
    finally {
      busy.value = false
    }
  }

  const handOut = (roundId: string) => api<MyRound>(`/api/rounds/${roundId}/next`, { method: 'POST', body: {} })

  /** Whoever is next, with their page; dialled as the round says. Joins a round that I am not on yet. */
  const next = (roundId = mine.value?.id, asked?: Promise<MyRound>) => trying(async () => {
    if (!roundId) return
    wait()
    mine.value = await (asked ?? handOut(roundId))
    const { inHand, pauseSeconds } = mine.value
    if (!inHand) return
    if (pauseSeconds === 0) void dial()
    else if (pauseSeconds !== null) dialIn(pauseSeconds)
    await navigateTo(`/record/${inHand.recordId}`)
  })

  /**
   * Asks for whoever is next while it is still being said how it went with the one before: nobody is in hand any more
   * once they were called. If that cannot be said yet, whoever was handed out stays in hand for later.
   */
  function nextAfter(said: Promise<boolean>): Promise<boolean> {
    const roundId = mine.value!.id
    const asked = handOut(roundId)
    // where nobody goes on, nobody waits for the answer
    asked.catch(() => undefined)
    return said.then(async (ok) => {
      if (ok) await next(roundId, asked)
      else void asked.then(round => mine.value = round, () => undefined)
      return ok
    })
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
    const person = mine.value?.inHand
    if (person && !calls.on) await calls.dial({ phoneId: person.phoneId, name: person.name })
  }

  const say = (what: Exclude<Saying, 'again'>) => trying(async () => {
    const { id, inHand } = mine.value ?? {}
    if (!id || !inHand) return
    wait()
    await api(`/api/rounds/${id}/people/${inHand.recordId}`, { method: 'POST', body: { say: what } })
  }).then(() => problem.value === '' ? next() : undefined)

  const leave = () => trying(async () => {
    if (!mine.value) return
    wait()
    await api(`/api/rounds/${mine.value.id}/leave`, { method: 'POST', body: {} })
    mine.value = null
  })

  // whoever is called by hand is not called once more by itself
  watch(() => calls.on, on => on && wait())

  return { mine, problem, busy, dialsAt, load, next, nextAfter, wait, dial, say, leave }
})
