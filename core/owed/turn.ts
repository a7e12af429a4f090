/**
 * Whose turn it is in an order: the first after whoever had the last one, of those who are there; from the top again after the
 * end, and where whoever had it is in the order no more.
 */
export function nextInTurn(order: readonly string[], last: string | null, there: readonly string[]): string | null {
  const after = last === null ? 0 : order.indexOf(last) + 1
  return [...order.slice(after), ...order.slice(0, after)].find(id => there.includes(id)) ?? null
}
