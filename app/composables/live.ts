import { createEventHook } from '@vueuse/core'
import type { Notice } from '~~/shared/live'
import { useMe } from '~/stores/me'

const CHANNEL = 'plauder-live'
/** After the server has refused the stream: soon at first, then not as often. */
const RETRY_MS = 1_000
const LONGEST_RETRY_MS = 30_000

const noticed = createEventHook<Notice>()
const reconnected = createEventHook<undefined>()
let started = false

type Relayed = { notice: Notice } | { reconnected: true }

/**
 * Notices of what others do. One tab of a browser holds the stream and tells the others: browsers allow
 * six connections to a place, and the seventh tab would hang. When the tab that holds it goes, the lock
 * goes to another.
 */
function start(): void {
  started = true
  const channel = new BroadcastChannel(CHANNEL)
  const tell = (message: Relayed) => {
    if ('notice' in message) void noticed.trigger(message.notice)
    else void reconnected.trigger(undefined)
  }
  channel.onmessage = event => tell(event.data as Relayed)
  void navigator.locks.request(CHANNEL, () => new Promise(() => openStream((message) => {
    channel.postMessage(message)
    tell(message)
  })))
}

function openStream(tell: (message: Relayed) => void, refused = 0): void {
  const source = new EventSource('/api/live')
  source.onmessage = event => tell({ notice: JSON.parse(event.data as string) as Notice })
  // what happened until now is unknown, so what is on screen is fetched anew
  source.addEventListener('listening', () => {
    refused = 0
    tell({ reconnected: true })
  })
  source.onerror = () => {
    if (source.readyState !== EventSource.CLOSED) return
    // it was refused: if the sign-in has ended, the page says so now and not at the next click
    useMe().load().catch(() => undefined)
    setTimeout(openStream, Math.min(LONGEST_RETRY_MS, RETRY_MS * 2 ** refused), tell, refused + 1)
  }
}

/** Calls back for every notice, and after a broken connection, for as long as the component lives. */
export function useLive(onNotice: (notice: Notice) => void, onReconnect: () => void): void {
  if (!started) start()
  noticed.on(onNotice)
  reconnected.on(onReconnect)
}
