import { defineEventHandler, getCookie, getQuery, getRouterParams, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import type { InferType, Schema } from 'yup'
import { ValidationError } from 'yup'
import { whoSignedIn, type SignedIn } from '../identity/sign-in'
import { log } from './log'
import { readJson } from './body'
import { badInput, Problem } from './problem'
import { noteAsked } from './quiet'

export const SIGN_IN_COOKIE = 'plauder'

interface Options<P extends Schema, Q extends Schema, B extends Schema> {
  params?: P
  query?: Q
  body?: B
  /** Most bytes of a body; 64 kB if left out. */
  bytes?: number
}

interface Asked<P, Q, B> {
  event: H3Event
  params: P
  query: Q
  body: B
  now: Date
}

/**
 * A route for people who are signed in: checks where a write comes from, who asks and what was sent, in
 * this order, then calls one use case. Whatever goes wrong is answered as problem details.
 */
export function route<R, P extends Schema, Q extends Schema, B extends Schema>(
  options: Options<P, Q, B>,
  handle: (asked: Asked<InferType<P>, InferType<Q>, InferType<B>> & { asker: SignedIn }) => Promise<R>,
) {
  return answering(async (event, now) => {
    const asker = await whoSignedIn(getCookie(event, SIGN_IN_COOKIE), now)
    if (!asker) throw new Problem(401, 'not-signed-in', 'Please sign in', 'Your sign-in has ended. Sign in again; what you wrote is kept in this browser.')
    return handle({ ...await read(event, now, options), asker })
  })
}

/** As `route`, for anybody. */
export function openRoute<R, P extends Schema, Q extends Schema, B extends Schema>(
  options: Options<P, Q, B>,
  handle: (asked: Asked<InferType<P>, InferType<Q>, InferType<B>>) => Promise<R>,
) {
  return answering(async (event, now) => handle(await read(event, now, options)))
}

function answering<R>(answer: (event: H3Event, now: Date) => Promise<R>) {
  return defineEventHandler(async (event) => {
    noteAsked()
    try {
      refuseForeignWrites(event)
      return await answer(event, new Date()) ?? null
    }
    catch (error) {
      return answerProblem(event, error)
    }
  })
}

async function read<P extends Schema, Q extends Schema, B extends Schema>(event: H3Event, now: Date, options: Options<P, Q, B>): Promise<Asked<InferType<P>, InferType<Q>, InferType<B>>> {
  const params = await validate(options.params, getRouterParams(event, { decode: true }))
  const query = await validate(options.query, getQuery(event))
  const body = options.body && await validate(options.body, await readJson(event, options.bytes ?? 65_536))
  return { event, params, query, body: body as InferType<B>, now }
}

/** Sends an error as problem details; what is no Problem is ours to mend, and is logged. */
export function answerProblem(event: H3Event, error: unknown) {
  const problem = problemOf(error)
  if (problem.details.status >= 500) log.error({ err: error, path: event.path.split('?')[0] }, 'a request failed')
  setResponseStatus(event, problem.details.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details
}

function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ValidationError) return badInput({ [error.path ?? '']: error.message })
  return new Problem(500, 'our-fault', 'Our fault', 'Something broke on our side and has been logged. Try again in a moment.')
}

/** Browsers name the origin of every write; one from another place is refused, whatever cookie it carries. */
function refuseForeignWrites(event: H3Event): void {
  if (event.method === 'GET' || event.method === 'HEAD') return
  const { origin, host } = event.node.req.headers
  if (origin === undefined && event.node.req.headers['sec-fetch-site'] === undefined) return
  if (origin && URL.canParse(origin) && new URL(origin).host === host) return
  throw new Problem(403, 'foreign-origin', 'From elsewhere', 'Writes are taken from Plauder\'s own pages only.')
}

async function validate<S extends Schema>(schema: S | undefined, input: unknown): Promise<InferType<S>> {
  if (!schema) return undefined as InferType<S>
  try {
    return await schema.validate(input, { abortEarly: false, stripUnknown: true }) as InferType<S>
  }
  catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const single = error.inner.length > 0 ? error.inner : [error]
    throw badInput(Object.fromEntries(single.map(e => [e.path ?? '', e.message])), single.length === 1 ? single[0]!.message : undefined)
  }
}
