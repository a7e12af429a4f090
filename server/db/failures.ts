interface DatabaseFailure { code?: string, constraint?: string, severity?: string }

const failureOf = (error: unknown): DatabaseFailure | null => {
  const failure = ((error as { cause?: unknown } | null)?.cause ?? error) as DatabaseFailure | null
  return failure && typeof failure.code === 'string' && /^[0-9A-Z]{5}$/.test(failure.code) ? failure : null
}

/** PostgreSQL's five characters for what went wrong in a statement; null for any other error. */
export const sqlStateOf = (error: unknown): string | null => failureOf(error)?.code ?? null

/** Whether a statement failed because a row with the same key is there already (PostgreSQL's error 23505). */
export function isDuplicate(error: unknown, constraint: string): boolean {
  const failure = failureOf(error)
  return failure?.code === '23505' && failure.constraint === constraint
}

/** What node-postgres says when its connection goes, for which PostgreSQL has no word any more. */
const GONE = /^(Connection terminated|Client has encountered a connection error|Connection ended|timeout exceeded when trying to connect)/
const UNREACHABLE = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'EHOSTUNREACH'])

/**
 * Whether a statement failed because its database is away or going: connection exceptions (08), shutting down (57P), no
 * more resources (53).
 */
export function isAway(error: unknown): boolean {
  const state = sqlStateOf(error)
  if (state) return /^(08|57P|53)/.test(state)
  // what fetch throws is about somebody else
  if (error instanceof TypeError) return false
  const causes = [error, (error as { cause?: unknown } | null)?.cause].filter(one => one instanceof Error) as (Error & { code?: string })[]
  return causes.some(one => GONE.test(one.message) || UNREACHABLE.has(one.code ?? ''))
}
