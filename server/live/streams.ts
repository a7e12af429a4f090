import { createEventStream, type H3Event } from 'h3'
import type { Asker } from '~~/shared/permissions'
import { listen } from './notices'

const KEEP_ALIVE_MS = 20_000
const open = new Set<() => void>()

/** One stream of notices for a browser, over server-sent events. */
export function openStream(event: H3Event, asker: Asker) {
  const stream = createEventStream(event)
  const stopListening = listen(asker, notice => void stream.push(JSON.stringify(notice)))
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), KEEP_ALIVE_MS).unref()
  const close = () => void stream.close()
  open.add(close)
  stream.onClosed(() => {
    clearInterval(beat)
    stopListening()
    open.delete(close)
  })
  // from here on nothing is missed; the browser fetches what happened before
  void stream.push({ event: 'listening', data: '' })
  return stream.send()
}

export function closeStreams(): void {
  for (const close of open) close()
}
