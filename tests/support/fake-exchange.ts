import type { CallEvent } from '~~/core/call/facts'
import { takeCallEvent } from '~~/server/calling/events'
import {
  registerExchange,
  type DialAnswer,
  type Exchange,
  type ExchangeEvent,
  type Order,
  type OrderAnswer,
  type OwnTelephone,
  type ToDial,
  type WhatBecame,
} from '~~/server/calling/port'

/** An exchange under the test's control: it keeps what it is asked, answers as told, and tells what the test says. */
export function fakeExchange() {
  const dialled: ToDial[] = []
  /** Who was put on which call, or taken off, and what else was sent along it. */
  const seated: string[] = []
  const rungAlong: { ref: string, phones: OwnTelephone[], record: boolean }[] = []
  const sent: { ref: string, tones?: string, sound?: Buffer }[] = []
  const sounds = new Map<string, Buffer>()
  const ordered: { ref: string, order: Order | 'take-message', greeting?: string }[] = []
  let next: DialAnswer | null = null
  let nextOrder: { answer: OrderAnswer, after: number } | null = null
  let nextFate: WhatBecame = { kind: 'never' }
  const askedAfter: string[] = []
  const answerOrder = () => {
    if (!nextOrder || nextOrder.after-- > 0) return 'done'
    const { answer } = nextOrder
    nextOrder = null
    return answer
  }
  let told = 0
  const exchange: Exchange = {
    name: 'practice',
    dial: async (call) => {
      dialled.push(call)
      const answer = next ?? { kind: 'dialling', ref: `call-${call.key}` }
      next = null
      return answer
    },
    whatBecameOf: async (key) => {
      askedAfter.push(key)
      return nextFate
    },
    order: async (ref, order) => {
      ordered.push({ ref, order })
      return answerOrder()
    },
    takeMessage: async (ref, greeting) => {
      ordered.push({ ref, order: 'take-message', greeting })
      return answerOrder()
    },
    seat: async (_ref, desk, on) => {
      seated.push(`${desk} ${on ? 'on' : 'off'}`)
      return answerOrder()
    },
    ringAlong: async (ref, phones, record) => {
      rungAlong.push({ ref, phones, record })
      return answerOrder()
    },
    tones: async (ref, tones) => {
      sent.push({ ref, tones })
      return answerOrder()
    },
    leave: async (ref, sound) => {
      sent.push({ ref, sound })
      return answerOrder()
    },
    eventsSince: async cursor => ({ told: [], cursor }),
    isSigned: () => false,
    readEvent: told => told as ExchangeEvent,
    recordingOf: async ref => sounds.get(ref) ?? null,
  }
  registerExchange(exchange)
  return {
    dialled,
    ordered,
    seated,
    rungAlong,
    sent,
    /** After so many orders that are done. */
    refuseNextOrder: (answer: OrderAnswer = 'not-now', after = 0) => (nextOrder = { answer, after }),
    askedAfter,
    /** What the exchange says of a call of which its answer was lost. */
    became: (fate: WhatBecame) => (nextFate = fate),
    answerNext: (answer: DialAnswer) => (next = answer),
    tell: (key: string, event: CallEvent, id = `told-${key}-${told++}`) =>
      takeCallEvent('practice', { id, ref: `call-${key}`, key, kind: 'happened', event }, new Date(event.at)),
    ring: (remote: string, line: string, at: Date, ref = `in-${remote}-${told++}`) =>
      takeCallEvent('practice', { id: `ring-${ref}`, ref, key: null, kind: 'incoming', at, line, remote }, at).then(() => ref),
    /** A telephone of ours that rang along was picked up. */
    taken: (ref: string, desk: string, at: Date) =>
      takeCallEvent('practice', { id: `taken-${ref}-${desk}`, ref, key: null, kind: 'taken', desk }, at),
    /** Something was recorded of a call, and can be fetched. */
    recorded: (ref: string, of: 'call' | 'message', sound: Buffer, at: Date) => {
      sounds.set(ref, sound)
      return takeCallEvent('practice', { id: `recorded-${ref}`, ref, key: null, kind: 'recorded', of }, at)
    },
    tellOf: (ref: string, event: CallEvent) =>
      takeCallEvent('practice', { id: `told-${ref}-${told++}`, ref, key: null, kind: 'happened', event }, new Date(event.at)),
  }
}
