import type { ProblemDetails } from '~~/shared/problems'

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
