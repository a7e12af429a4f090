import type { Bind } from '~~/shared/carriers'
import { log } from '../../log/log'
import type { CarrierState } from '../port'
import { openLink, Unanswered, type Access, type Link, type Way } from './link'
import type { Pdu, PduFields } from './protocol'

export const WAYS: Record<Bind, Way[]> = { transceiver: ['bind_transceiver'], pair: ['bind_transmitter', 'bind_receiver'] }

/** Between two tries to connect: a second, and twice as long each time in which nothing came of it. */
const [FIRST_PAUSE_MS, LONGEST_PAUSE_MS] = [1_000, 60_000]
/** A connection that has held for so long has come to something, whether there was anything to send or not. */
const STEADY_MS = 30_000

export interface Kept {
  /**
   * Asks once there is room among those that have no answer yet.
   *
   * @throws Unanswered at once where there is no connection
   */
  ask: (command: string, fields: PduFields) => Promise<Pdu>
  state: () => CarrierState
  stop: () => Promise<void>
}

/**
 * Keeps connected to an SMS centre, and connects again whenever that breaks, with growing pauses.
 *
 * @param name by which the log names it
 * @param window how many may be without an answer at a time
 * @param hears as of `openLink`; the number tells one connection from the next
 */
export function keepConnected(
  access: Access,
  { bind, window, name }: { bind: Bind, window: number, name: string },
  hears: (pdu: Pdu, connection: number) => Promise<void>,
): Kept {
  let links: Link[] = []
  let state: CarrierState = { is: 'connecting', since: Date.now(), why: null }
  let stopped = false
  let connection = 0
  let pause = FIRST_PAUSE_MS
  let wake: () => void = () => {}
  let asked = 0
  /** Whether anything was answered over the connection that is open, or was the last. */
  let worked = false
  const inLine: (() => void)[] = []

  const become = (is: CarrierState['is'], why: string | null) => {
    if (state.is !== is) log.info({ carrier: name, state: is, why }, 'the connection to a carrier has changed')
    state = { is, since: state.is === is ? state.since : Date.now(), why }
  }

  async function once(): Promise<void> {
    const mine = ++connection
    const opened: Link[] = []
    try {
      for (const way of WAYS[bind]) opened.push(await openLink(access, way, pdu => hears(pdu, mine)))
      if (stopped) return
      links = opened
      become('connected', null)
      worked = false
      const begun = Date.now()
      const why = await Promise.race(opened.map(link => link.ended))
      if (worked || Date.now() - begun > STEADY_MS) pause = FIRST_PAUSE_MS
      become('away', why)
    }
    catch (error) {
      become('away', (error as Error).message)
    }
    finally {
      links = []
      await Promise.all(opened.map(link => link.leave()))
    }
  }

  const running = (async () => {
    while (!stopped) {
      await once()
      if (stopped) return
      const timer = setTimeout(() => wake(), pause)
      await new Promise<void>(resolve => wake = resolve)
      clearTimeout(timer)
      pause = Math.min(LONGEST_PAUSE_MS, pause * 2)
    }
  })()

  return {
    ask: async (command, fields) => {
      if (asked >= window) await new Promise<void>(resolve => inLine.push(resolve))
      asked++
      try {
        if (!links[0]) throw new Unanswered(false)
        const answer = await links[0].ask(command, fields)
        worked = true
        return answer
      }
      finally {
        asked--
        inLine.shift()?.()
      }
    },
    state: () => state,
    stop: async () => {
      stopped = true
      await Promise.all(links.map(link => link.leave()))
      wake()
      await running
    },
  }
}
