import { FetchError } from 'ofetch'
import type { ProblemDetails } from '~~/shared/problems'
import { useMe } from '~/stores/me'
import { saidToReader } from '~/words/reader'

/** An answer of the server that says what went wrong. */
export class ApiProblem extends Error {
  constructor(readonly details: ProblemDetails) {
    super(saidToReader(details.detail))
  }

  get type() {
    return this.details.type
  }

  get fields() {
    return Object.fromEntries(Object.entries(this.details.fields ?? {}).map(([field, reason]) => [field, saidToReader(reason)]))
  }
}

export const OFFLINE: ProblemDetails = {
  type: 'offline',
  title: 'No connection',
  status: 0,
  detail: 'Plauder cannot be reached. What you wrote is kept; try again in a moment.',
}

interface Options {
  method?: 'GET' | 'POST' | 'PUT' | 'DELETE'
  body?: object
  query?: Record<string, unknown>
  signal?: AbortSignal
  responseType?: 'json' | 'blob'
  /** Whoever is signed in in this browser, though the page may belong to somebody else. */
  asAnybody?: boolean
}

const AGAIN = new Set(['busy', 'database-away'])

/** As often is what is too much for the server asked again by itself, after as long as it says. */
const MOST_TRIES = 4

/** What is read and gets no answer at all is given up, as if the server could not be reached. */
const LONGEST_READ_MS = 60_000

/** Says to whom this page belongs: another tab may have signed in as somebody else. */
export const asMe = (): Record<string, string> => {
  const { me } = useMe()
  return me ? { 'plauder-as': me.id } : {}
}

/**
 * Asks the server. An expired sign-in opens the sign-in over the page, which stays as it is; whoever
 * asked gets the problem and keeps what was written.
 *
 * @throws ApiProblem
 */
export async function api<T>(path: string, { asAnybody = false, ...options }: Options = {}): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      const timeout = options.method === undefined ? LONGEST_READ_MS : undefined
      return await $fetch<T>(path, { retry: 0, timeout, ...options, headers: asAnybody ? {} : asMe() }) as T
    }
    catch (error) {
      const details
        = error instanceof FetchError && (error.data as ProblemDetails | undefined)?.detail ? (error.data as ProblemDetails) : OFFLINE
      // the server had not begun with it, or its database was away and nothing stands: whatever is written has an id of its own
      const busy = AGAIN.has(details.type) && tries < MOST_TRIES && !options.signal?.aborted
      if (!busy) throw noticed(details)
      await new Promise(resolve => setTimeout(resolve, Number(details.retryAfter ?? 1) * 1_000 * (0.5 + Math.random())))
    }
  }
}

function noticed(details: ProblemDetails): ApiProblem {
  const me = useMe()
  if (details.type === 'somebody-else') me.replacedBy = String(details.name)
  if (details.status === 401 || details.type === 'somebody-else') me.expired = true
  return new ApiProblem(details)
}
