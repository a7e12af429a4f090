import { defineEventHandler, getCookie, getQuery, getRouterParams, setResponseHeader, type H3Event } from 'h3'
import type { InferType, Schema } from 'yup'
import { ValidationError } from 'yup'
import { diskIsFull } from '../db/disk'
import { mustSeeNamed, type NamedId } from './named'
import { whoSignedIn, type SignedIn } from '../identity/sign-in'
import { readJson } from '../http/body'
import { isForHelpers } from './for-helpers'
import { namedIn } from './named-in'
import { plain } from '../http/plain'
import { answerProblem, badInput, conflict, diskFull, notAllowed, Problem } from '../http/problem'
import { noteAsked } from '../http/quiet'
import { asRequest } from '../log/request-id'
import { countAnswer } from '../metrics/registry'
import { misshapen } from '../http/shape'
import { SIGN_IN_COOKIE } from './sign-in-cookies'
import { withStrength } from '../http/strength'

/** In which a page of ours says who it belongs to: another tab may have signed in as somebody else since. */
export const AS_HEADER = 'plauder-as'

export interface Schemas<P extends Schema = Schema, Q extends Schema = Schema, B extends Schema = Schema> {
  params?: P
  query?: Q
  body?: B
}

interface Options<P extends Schema, Q extends Schema, B extends Schema> extends Schemas<P, Q, B> {
  /** Most bytes of a body; 64 kB if left out. */
  bytes?: number
  /** It does not count as work: it is answered for as long as somebody listens, or has to be answered in any case. */
  uncounted?: boolean
}

interface Asked<P, Q, B> {
  event: H3Event
  params: P
  query: Q
  body: B
  now: Date
}

/**
 * A route for people who are signed in: checks where a write comes from, who asks, what was sent, and whether all that
 * it names may be seen, in this order, then calls one use case. Whatever goes wrong is answered as problem details.
 */
export function route<R, P extends Schema, Q extends Schema, B extends Schema>(
  options: Options<P, Q, B>,
  handle: (asked: Asked<InferType<P>, InferType<Q>, InferType<B>> & { asker: SignedIn }) => Promise<R>,
) {
  return answering(options, async (event, now) => {
    const asker = await whoSignedIn(getCookie(event, SIGN_IN_COOKIE), now)
    if (!asker)
      throw new Problem(
        401,
        'not-signed-in',
        'Please sign in',
        'Your sign-in has ended. Sign in again; what you wrote is kept in this browser.',
      )
    refuseAnothersPage(event, asker)
    if (asker.role === 'helper' && !isForHelpers(event.path.split('?')[0]!)) throw notAllowed('see people or what is said to them; you help to set up')
    const { named, ...asked } = await read(event, now, options)
    await mustSeeNamed(asker, named)
    return handle({ ...asked, asker })
  })
}

/** As `route`, for anybody. */
export function openRoute<R, P extends Schema, Q extends Schema, B extends Schema>(
  options: Options<P, Q, B>,
  handle: (asked: Asked<InferType<P>, InferType<Q>, InferType<B>>) => Promise<R>,
) {
  return answering(options, async (event, now) => handle(await read(event, now, options)))
}

/** The handler carries its schemas, so that tests ask every route what it takes. */
function answering<R>(
  { params, query, body, uncounted }: Options<Schema, Schema, Schema>,
  answer: (event: H3Event, now: Date) => Promise<R>,
) {
  const handler = defineEventHandler(event =>
    asRequest(async (id) => {
      const begun = performance.now()
      noteAsked()
      setResponseHeader(event, 'x-request-id', id)
      // what is about people is kept by no cache
      setResponseHeader(event, 'cache-control', 'no-store')
      try {
        refuseForeignWrites(event)
        if (isWrite(event) && diskIsFull()) throw diskFull()
        const work = () => answer(event, new Date())
        return (await (uncounted ? work() : withStrength(event.method, work))) ?? null
      }
      catch (error) {
        return answerProblem(event, error, id)
      }
      finally {
        countAnswer(event.method, event.context.matchedRoute?.path ?? '', event.node.res.statusCode, (performance.now() - begun) / 1_000)
      }
    }),
  )
  return Object.assign(handler, { schemas: { params, query, body } })
}

async function read<P extends Schema, Q extends Schema, B extends Schema>(
  event: H3Event, now: Date, options: Options<P, Q, B>,
): Promise<Asked<InferType<P>, InferType<Q>, InferType<B>> & { named: NamedId[] }> {
  const params = await validate(options.params, plain(getRouterParams(event, { decode: true })))
  const query = await validate(options.query, plain(getQuery(event)))
  const body = options.body && await validate(options.body, plain(await readJson(event, options.bytes ?? 65_536)))
  const named = [namedIn(options.params, params), namedIn(options.query, query), namedIn(options.body, body)].flat()
  return { event, params, query, body: body as InferType<B>, now, named }
}

const isWrite = ({ method }: H3Event): boolean => method !== 'GET' && method !== 'HEAD'

/** Browsers name the origin of every write; one from another place is refused, whatever cookie it carries. */
function refuseForeignWrites(event: H3Event): void {
  if (!isWrite(event)) return
  const { origin, host } = event.node.req.headers
  if (origin === undefined && event.node.req.headers['sec-fetch-site'] === undefined) return
  if (origin && URL.canParse(origin) && new URL(origin).host === host) return
  throw new Problem(403, 'foreign-origin', 'From elsewhere', 'Writes are taken from Plauder\'s own pages only.')
}

/** A page that belongs to one colleague neither shows nor writes anything as another. */
function refuseAnothersPage(event: H3Event, asker: SignedIn): void {
  const as = event.node.req.headers[AS_HEADER]
  if (as !== undefined && as !== asker.id) {
    throw conflict(
      'somebody-else',
      'Somebody else is signed in',
      `${asker.name} has signed in in another tab of this browser. Sign in again here, or load the page anew to go on as ${asker.firstName}.`,
      { name: asker.name },
    )
  }
}

async function validate<S extends Schema>(schema: S | undefined, input: unknown): Promise<InferType<S>> {
  if (!schema) return undefined as InferType<S>
  const wrong = misshapen(schema, input)
  if (Object.keys(wrong).length > 0) throw badInput(wrong)
  try {
    return await schema.validate(input, { abortEarly: false, stripUnknown: true }) as InferType<S>
  }
  catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const single = error.inner.length > 0 ? error.inner : [error]
    throw badInput(Object.fromEntries(single.map(e => [e.path ?? '', e.message])), single.length === 1 ? single[0]!.message : undefined)
  }
}
