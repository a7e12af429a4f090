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
