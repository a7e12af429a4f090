/**
 * Of questions that overtake each other only the newest counts.
 *
 * @example
 * const begin = newestOnly()
 * async function load() {
 *   const isNewest = begin()
 *   const answer = await api('/api/things')
 *   if (isNewest()) things.value = answer
 * }
 */
export function newestOnly(): () => () => boolean {
  let turn = 0
  return () => {
    const own = ++turn
    return () => own === turn
  }
}
