/** Whether a statement failed because a row with the same key is there already (PostgreSQL's error 23505). */
export function isDuplicate(error: unknown, constraint: string): boolean {
  const failure = (error as { cause?: unknown }).cause ?? error
  const { code, constraint: named } = failure as { code?: string, constraint?: string }
  return code === '23505' && named === constraint
}
