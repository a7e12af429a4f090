/** An error whose words are ours alone and name nobody, so that they may stand in the log. */
export class PlainError extends Error {}

interface Known { code?: string, syscall?: string, constraint?: string, table?: string, routine?: string, query?: string, cause?: unknown }

const framesOf = (error: Error): string[] =>
  (error.stack ?? '')
    .split('\n')
    .filter(row => row.startsWith('    at '))
    .map(row => row.slice(4))

/** What broke and where, without any of its words: those of a database, a parser or a check quote what people wrote. */
export function namedFailure(error: unknown): string {
  if (!(error instanceof Error)) return typeof error
  const { code, cause } = error as Known
  const inner = cause instanceof Error ? ` < ${namedFailure(cause)}` : ''
  return [error.name, code, framesOf(error)[0]?.replace(/\(.*[\\/]/, '(')].filter(Boolean).join(' ') + inner
}

/** An error as it is logged. A statement's own words hold no values: all of these are parameters. */
export function loggedError(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { type: typeof error }
  const { code, syscall, constraint, table, routine, query, cause } = error as Known
  return {
    type: error.name,
    ...(error instanceof PlainError && { message: error.message }),
    ...Object.fromEntries(
      Object.entries({ code, syscall, constraint, table, routine, query }).filter(([, value]) => typeof value === 'string'),
    ),
    stack: framesOf(error),
    ...(cause !== undefined && { cause: loggedError(cause) }),
  }
}
