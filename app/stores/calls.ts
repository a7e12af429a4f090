import { defineStore } from 'pinia'
import { v7 as uuid } from 'uuid'
import { callState, isOff } from '~~/core/call/facts'
import type { TransferStep, TransferWay } from '~~/core/call/transfer'
import type { CallDetail, CallShelf, Transfer } from '~~/shared/calling'
import { api } from '~/composables/api'
import { chime } from '~/composables/chime'
import { problemIn, useTrying } from '~/composables/trying'
import { oneAtATime } from '~/composables/one-at-a-time'
import type { NightQuestion } from '~/composables/composer'
import { useShelf } from './shelf'

export type Order = 'hang-up' | 'answer' | 'decline' | 'hold' | 'resume' | 'mute' | 'unmute' | 'record' | 'stop-recording'

/** A number that somebody wants to call, and what stands in the way. */
export interface Asked {
  phoneId?: string
  /** As it was typed, where it is of no record. */
  number?: string
  name: string
  /** Whoever is in hand in this round. */
  roundId?: string
}

/** After calls could not be loaded; once the connection is there again they are loaded in any case. */
const AGAIN_MS = 3_000
const MOST_FAILURES = 5

/** For so long a call that was begun by a key can be taken back before the exchange is asked. */
const BY_KEY_MS = 2_000

/** What is open beside the notes of the call that is on. */
export type CallWay = 'transfer' | 'tones' | 'leave'

/** The calls on my shelf, and the one that is opened over the page. */
export const useCalls = defineStore('calls', () => {
  const calls = shallowRef<CallDetail[]>([])
  const openId = ref<string | null>(null)
  const way = ref<CallWay | null>(null)
  /** Whether a number is being typed, to be called. */
  const dialling = ref(false)
  const night = shallowRef<{ asked: Asked, question: NightQuestion } | null>(null)
  const { problem, busy, trying } = useTrying()
  /** How far the server's clock is before that of this browser. */
  const skew = ref(0)

  const stateOf = (call: CallDetail) => callState(call.facts)
  /** The calls I am on, whoever I talk to before those who wait on hold. */
  const live = computed(() =>
    calls.value
      .filter(call => call.mine && !isOff(stateOf(call)))
      .sort((one, other) => Number(stateOf(one) === 'held') - Number(stateOf(other) === 'held')),
  )
  const on = computed(() => live.value[0] ?? null)
  const isTransferredToMe = (call: CallDetail) => call.transfer?.toMe === true && call.transfer.state === 'asked'
  /** Whether a call rings for me to take. */
  const rings = (call: CallDetail) => isTransferredToMe(call) || (!call.mine && call.direction === 'in' && stateOf(call) === 'ringing')
  /** Whoever rings: the one that is open first, then whoever has waited longest. */
  const ringing = computed(() =>
    calls.value
      .filter(rings)
      .sort((one, other) => Number(other.id === openId.value) - Number(one.id === openId.value) || one.facts.madeAt - other.facts.madeAt),
  )
  const opened = computed(() => calls.value.find(({ id }) => id === openId.value) ?? null)

  let again: ReturnType<typeof setTimeout> | undefined
  let failures = 0
  const load: () => Promise<void> = oneAtATime(async () => {
    // the calls that are here stay, and what could not be loaded is asked for again: somebody may be ringing
    clearTimeout(again)
    const answer = await api<CallShelf>('/api/calls').catch(() => null)
    if (answer) show(answer)
    else if (failures++ < MOST_FAILURES) again = setTimeout(load, AGAIN_MS)
  })

  function show(shelf: CallShelf): void {
    failures = 0
    const before = calls.value
    calls.value = shelf.calls
    for (const call of shelf.calls) {
      const handed = before.find(({ id }) => id === call.id)?.transfer
      if (handed && !handed.toMe && !call.transfer && call.mine && !isOff(stateOf(call)) && takenBack !== handed.id) cameBack(call, handed)
    }
    skew.value = shelf.now - Date.now()
  }

  /** The transfer that I took back myself. */
  let takenBack: string | null = null

  /** A colleague did not take it: whoever waits on hold waits until I say so, and I may have turned to something else. */
  function cameBack(call: CallDetail, { to }: Transfer): void {
    chime()
    problem.value = `${to.firstName} did not take the call. ${call.record?.firstName ?? 'Whoever called'} waits on hold: “Go on” talks to them again.`
  }

  /** The call that the server is just asked to make. */
  let making: Promise<unknown> | null = null

  async function dial(asked: Asked, nightAllowed = false): Promise<void> {
    night.value = null
    dontDial()
    making = trying(async () => {
      try {
        const made = await api<{ id: string } & CallShelf>('/api/calls', {
          method: 'POST',
          body: { id: uuid(), phoneId: asked.phoneId, number: asked.number, roundId: asked.roundId, nightAllowed },
        })
        show(made)
        dialling.value = false
        openId.value = made.id
      }
      catch (error) {
        const refused = problemIn(error)
        if (refused.type !== 'night') throw refused
        night.value = { asked, question: { ...refused.details, detail: refused.message } as unknown as NightQuestion }
      }
    })
    await making
    making = null
  }

  /** Ends the call I am on, also one that is only being made: pressed at once, it was meant all the same. */
  async function hangUp(): Promise<void> {
    dontDial()
    await making
    if (on.value) await order(on.value, 'hang-up')
  }

  /** Whoever a key is about to call, and when. */
  const soon = shallowRef<{ asked: Asked, at: number } | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  /** A key is pressed by mistake more easily than a button: nobody is asked, and for a moment nothing has happened yet. */
  function dialByKey(asked: Asked): void {
    dontDial()
    problem.value = ''
    soon.value = { asked, at: Date.now() + BY_KEY_MS }
    timer = setTimeout(() => {
      dontDial()
      void dial(asked)
    }, BY_KEY_MS)
  }

  function dontDial(): void {
    clearTimeout(timer)
    soon.value = null
  }

  const order = (call: CallDetail, what: Order) => trying(async () => {
    await api(`/api/calls/${call.id}/order`, { method: 'POST', body: { order: what } })
    if (what === 'answer') openId.value = call.id
    await load()
  })

  /** Takes what rings: a call from outside, or one that a colleague hands me. */
  const answer = (call: CallDetail) => isTransferredToMe(call) ? stepTransfer(call, 'take') : order(call, 'answer')

  const transfer = (call: CallDetail, toId: string, how: TransferWay) => trying(async () => {
    await api(`/api/calls/${call.id}/transfer`, { method: 'POST', body: { id: uuid(), toId, way: how } })
    way.value = null
    await load()
  })

  const stepTransfer = (call: CallDetail, step: TransferStep) => trying(async () => {
    takenBack = step === 'refuse' || step === 'take' ? null : (call.transfer?.id ?? null)
    await api(`/api/calls/${call.id}/transfer/step`, { method: 'POST', body: { step } })
    if (step === 'take') openId.value = call.id
    await load()
  })

  /** Leaves what was spoken before on the mailbox that answers; I am free for how it went, and for the next. */
  const leave = (call: CallDetail, spokenId: string) => trying(async () => {
    await api(`/api/calls/${call.id}/leave`, { method: 'POST', body: { spokenId } })
    way.value = null
    await load()
  })

  const sendTones = (call: CallDetail, tones: string) =>
    trying(() => api(`/api/calls/${call.id}/tones`, { method: 'POST', body: { tones } }))

  /** Says in a text why one cannot talk now, on the shelf: the call that is on goes on. */
  const declineWithText = (call: CallDetail) => trying(async () => {
    const { conversationId } = await api<{ conversationId: string }>(`/api/calls/${call.id}/decline-with-text`, {
      method: 'POST',
      body: {},
    })
    openId.value = null
    useShelf().openId = conversationId
    await load()
  })

  async function putAway(call: CallDetail): Promise<void> {
    const gone = await trying(() => api(`/api/calls/${call.id}/put-away`, { method: 'POST', body: {} }))
    if (gone && openId.value === call.id) openId.value = null
    await load()
  }

  /** Takes back how a call went, and asks anew. */
  const takeBack = (call: CallDetail) => trying(async () => {
    await api(`/api/calls/${call.id}/disposition/take-back`, { method: 'POST', body: {} })
    await load()
    openId.value = call.id
  })

  // what was open beside one call is not open beside the next
  watch(openId, () => way.value = null)

  return {
    calls,
    skew,
    openId,
    opened,
    problem,
    way,
    dialling,
    night,
    busy,
    on,
    live,
    ringing,
    rings,
    stateOf,
    load,
    dial,
    soon,
    dialByKey,
    dontDial,
    hangUp,
    order,
    answer,
    transfer,
    stepTransfer,
    leave,
    sendTones,
    declineWithText,
    putAway,
    takeBack,
  }
})
