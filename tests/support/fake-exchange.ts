import type { CallEvent } from '~~/core/call/facts'
import { takeCallEvent } from '~~/server/calling/events'
import { registerExchange, type DialAnswer, type Exchange, type Order, type OrderAnswer, type OwnOrder, type ToDial } from '~~/server/calling/port'

/** An exchange under the test's control: it keeps what it is asked, answers as told, and tells what the test says. */
export function fakeExchange() {
  const dialled: ToDial[] = []
  /** Who was put on which call, or taken off, and what else was sent along it. */
  const seated: string[] = []
  const sent: { ref: string, tones?: string, sound?: Buffer }[] = []
  const sounds = new Map<string, Buffer>()
  const ordered: { ref: string, order: Order | OwnOrder }[] = []
  let next: DialAnswer | null = null
  let nextOrder: OrderAnswer = 'done'
  const answerOrder = () => {
    const answer = nextOrder
    nextOrder = 'done'
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
    order: async (ref, order) => {
      ordered.push({ ref, order })
      return answerOrder()
    },
    seat: async (_ref, desk, on) => {
      seated.push(`${desk} ${on ? 'on' : 'off'}`)
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
    eventsSince: async cursor => ({ events: [], cursor }),
    readReport: () => null,
    recordingOf: async ref => sounds.get(ref) ?? null,
  }
  registerExchange(exchange)
  return {
    dialled,
    ordered,
    seated,
    sent,
    refuseNextOrder: (answer: OrderAnswer = 'not-now') => nextOrder = answer,
    answerNext: (answer: DialAnswer) => next = answer,
    tell: (key: string, event: CallEvent, id = `told-${key}-${told++}`) => takeCallEvent('practice', { id, ref: `call-${key}`, key, kind: 'happened', event }, new Date(event.at)),
    ring: (other: string, line: string, at: Date, ref = `in-${other}-${told++}`) => takeCallEvent('practice', { id: `ring-${ref}`, ref, key: null, kind: 'incoming', at, line, other }, at).then(() => ref),
    /** Something was recorded of a call, and can be fetched. */
    recorded: (ref: string, of: 'call' | 'message', sound: Buffer, at: Date) => {
      sounds.set(ref, sound)
      return takeCallEvent('practice', { id: `recorded-${ref}`, ref, key: null, kind: 'recorded', of }, at)
    },
    tellOf: (ref: string, event: CallEvent) => takeCallEvent('practice', { id: `told-${ref}-${told++}`, ref, key: null, kind: 'happened', event }, new Date(event.at)),
  }
}
