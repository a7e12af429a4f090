import { FetchError } from 'ofetch'
import type { ProblemDetails } from '~~/shared/problems'
import { useMe } from '~/stores/me'

/** An answer of the server that says what went wrong. */
export class ApiProblem extends Error {
  constructor(readonly details: ProblemDetails) {
    super(details.detail)
  }

  get type() {
    return this.details.type
  }

  get fields() {
    return this.details.fields ?? {}
  }
}

export const OFFLINE: ProblemDetails = { type: 'offline', title: 'No connection', status: 0, detail: 'Plauder cannot be reached. What you wrote is kept; try again in a moment.' }

interface Options { method?: 'GET' | 'POST' | 'PUT' | 'DELETE', body?: object, query?: Record<string, unknown>, signal?: AbortSignal, responseType?: 'json' | 'blob' }

/**
 * Asks the server. An expired sign-in opens the sign-in over the page, which stays as it is; whoever
 * asked gets the problem and keeps what was written.
 *
 * @throws ApiProblem
 */
export async function api<T>(path: string, options: Options = {}): Promise<T> {
  try {
    return await $fetch<T>(path, { retry: 0, ...options }) as T
  }
  catch (error) {
    const details = error instanceof FetchError && (error.data as ProblemDetails | undefined)?.detail ? error.data as ProblemDetails : OFFLINE
    if (details.status === 401) useMe().expired = true
    throw new ApiProblem(details)
  }
}
