import { subscribe } from 'node:diagnostics_channel'
import type { Server } from 'node:http'
import type { Socket } from 'node:net'
import { answerRefused } from '../http/refused'

const known = new WeakSet<Server>()

/**
 * For so long a connection that nobody uses is kept: longer than browsers and proxies keep it (common practice), so that it is
 * theirs to close. What is sent over one that we are just closing is lost.
 */
const KEEP_ALIVE_MS = 75_000

/** The server is made after the plugins are; the first connection to it tells which it is, before anything of it is read. */
export default defineNitroPlugin(() => {
  subscribe('net.server.socket', (message) => {
    const { server } = (message as { socket: Socket & { server?: Server } }).socket
    if (!server || known.has(server)) return
    known.add(server)
    server.on('clientError', answerRefused)
    server.keepAliveTimeout = KEEP_ALIVE_MS
  })
})
