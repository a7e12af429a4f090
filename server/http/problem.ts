import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { ValidationError } from 'yup'
import type { ProblemDetails } from '~~/shared/problems'
import { isAway, sqlStateOf } from '../db/failures'
import { log } from '../log/log'

/** An error that is an answer: thrown by use cases, sent as problem details (RFC 9457). */
export class Problem extends Error {
  readonly details: ProblemDetails

  constructor(status: number, type: string, title: string, detail: string, more: Record<string, unknown> = {}) {
    super(`${title}: ${detail}`)
    this.details = { type, title, status, detail, ...more }
  }
}

export const badInput = (fields: Record<string, string>, detail = 'Something in it cannot be taken. Look at the marked fields.') =>
  new Problem(422, 'bad-input', 'Please look again', detail, { fields })

/** The same answer for what does not exist and for what one may not see. */
export const notFound = (what: string) =>
  new Problem(404, 'not-found', 'Not found', `There is no such ${what}, or it is not yours to see. Ask its owner or your lead.`)

export const notAllowed = (what: string) =>
  new Problem(403, 'not-allowed', 'Not allowed', `You may not ${what}. Ask your lead or an admin.`)

export const conflict = (type: string, title: string, detail: string, more: Record<string, unknown> = {}) =>
  new Problem(409, type, title, detail, more)

/**
 * Sends an error as problem details; what is ours to mend is logged, without anybody's words.
 *
 * @param id of the request: in the log under this id, and in the answer as the URI of this one occurrence
 */
export function answerProblem(event: H3Event, error: unknown, id: string) {
  const details: ProblemDetails = { ...problemOf(error).details, instance: `urn:uuid:${id}` }
  if (details.status >= 500 && !(error instanceof Problem))
    log.error({ err: error, path: event.path.split('?')[0]!.replace(/[^/]{20,}/g, '…') }, 'a request failed')
  setResponseStatus(event, details.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  if (typeof details.retryAfter === 'number') setResponseHeader(event, 'retry-after', details.retryAfter)
  return details
}

export const diskFull = () =>
  new Problem(
    507,
    'disk-full',
    'The disk is full',
    'Nothing can be kept at the moment: the disk of the server is full. What you wrote stays in this browser. Tell an admin.',
  )

const databaseAway = () =>
  new Problem(
    503,
    'database-away',
    'The database is away',
    'The database does not answer. What you wrote stays in this browser; it is tried again by itself.',
    { retryAfter: 2 },
  )

/** What a database says about itself, by the first characters of its five; everything else is a fault of ours. */
const OF_THE_DATABASE: [RegExp, () => Problem][] = [
  [
    /^22/,
    () =>
      badInput({}, 'Something in it cannot be kept as it stands: a number or a day that is too large, or a character that no text has.'),
  ],
  [/^(53100|58030)$/, diskFull],
  [
    /^(57014|25P0[34])$/,
    () =>
      new Problem(503, 'took-too-long', 'Took too long', 'That took longer than anybody waits, and was stopped. Ask for less at a time.'),
  ],
]

function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ValidationError) return badInput({ [error.path ?? '']: error.message })
  const state = sqlStateOf(error)
  const known = state && OF_THE_DATABASE.find(([states]) => states.test(state))
  if (known) return known[1]()
  if (isAway(error)) return databaseAway()
  return new Problem(
    500,
    'our-fault',
    'Our fault',
    'Something broke on our side and has been logged. Try again in a moment; if it stays so, tell an admin.',
  )
}
