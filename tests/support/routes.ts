import { createHash, randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { resolve } from 'node:path'
import { createApp, createRouter, toNodeListener, type EventHandler } from 'h3'
import { tx } from '~~/server/db/door'
import { signIn } from '~~/server/db/schema'
import { answerRefused } from '~~/server/http/refused'
import type { Schemas } from '~~/server/routing/route'
import { SIGN_IN_COOKIE } from '~~/server/routing/sign-in-cookies'
import type { SignedIn } from '~~/server/identity/sign-in'

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

/** A route as its file says it: `/api/records/:id/notes`, with what it takes. */
export interface Route { method: Method, path: string, schemas: Schemas, handler: EventHandler }

const FILE = /^(.+?)(?:\/index)?\.(get|post|put|delete)\.ts$/

/** Every route there is, read from the files, so that a new one is tested too. */
export async function allRoutes(): Promise<Route[]> {
  const files = readdirSync('server/api', { recursive: true, encoding: 'utf8' }).filter(file => FILE.test(file)).sort()
  return Promise.all(files.map(async (file) => {
    const [, name, method] = FILE.exec(file)!
    const { default: handler } = await import(resolve('server/api', file)) as { default: EventHandler & { schemas: Schemas } }
    return {
      method: method!.toUpperCase() as Method,
      path: `/api/${name!.replace(/\[(\w+)\]/g, ':$1')}`,
      schemas: handler.schemas,
      handler,
    }
  }))
}

/** The routes on a server of this machine, as the built application has them, without its pages. */
export async function serve(routes: Route[]): Promise<{ url: string, server: Server, close: () => Promise<void> }> {
  const router = createRouter()
  // those with a name in their path come after those that are spelt out
  for (const { method, path, handler } of [...routes].sort((a, b) => a.path.split(':').length - b.path.split(':').length))
    router.use(path, handler, method.toLowerCase() as 'get')
  const server = createServer(toNodeListener(createApp().use(router)))
  server.on('clientError', answerRefused)
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    server,
    close: () => new Promise((done) => {
      server.close(() => done())
      server.closeAllConnections()
    }),
  }
}

/** The cookie of somebody who is signed in. */
export async function cookieOf({ id }: SignedIn, now = new Date()): Promise<string> {
  const token = randomUUID()
  await tx(database =>
    database
      .insert(signIn)
      .values({
        tokenHash: createHash('sha256').update(token).digest('base64url'),
        colleagueId: id,
        madeAt: now,
        endsAt: new Date(now.getTime() + 3_600_000),
      }),
  )
  return `${SIGN_IN_COOKIE}=${token}`
}

/** Nobody waits longer for an answer, whatever was asked. */
const LONGEST_MS = 15_000

const asQuery = (query: unknown): string => {
  const search = new URLSearchParams()
  for (const [key, value] of Object.entries(query && typeof query === 'object' ? query : { query }))
    for (const one of Array.isArray(value) ? value : [value])
      if (one !== undefined) search.append(key, typeof one === 'string' ? one : (JSON.stringify(one) ?? ''))
  return search.size > 0 ? `?${search}` : ''
}

/**
 * Asks a route over HTTP.
 *
 * @param url of `serve`
 * @throws where it does not answer in time
 */
export async function askRoute(
  url: string,
  { method, path, schemas }: Route,
  { params, query, body }: { params?: unknown, query?: unknown, body?: unknown },
  cookie: string,
) {
  const filled = path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent((String((params as Record<string, unknown> | undefined)?.[name] ?? '') || 'none').toWellFormedHere()),
  )
  const response = await fetch(`${url}${filled}${asQuery(query)}`, {
    method,
    headers: { cookie, 'content-type': 'application/json' },
    body: method === 'GET' || !schemas.body ? undefined : (JSON.stringify(body) ?? ''),
    signal: AbortSignal.timeout(LONGEST_MS),
  })
  return { status: response.status, type: response.headers.get('content-type') ?? '', words: await response.text() }
}

declare global {
  interface String { toWellFormedHere(): string }
}
// an address cannot hold half of a pair of surrogates at all
Object.defineProperty(String.prototype, 'toWellFormedHere', { value(this: string) {
  return this.replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, '\uFFFD')
} })
