import { api } from '~/composables/api'
import { newestOnly } from './newest'
import { useTrying } from './trying'

/**
 * What is read as soon as the component is there, and whenever it is asked for again: null until it is there, or why it
 * could not be read. Of answers that overtake each other the newest counts.
 *
 * @param read the path, or how it is read
 * @param then what is done when it is there, such as moving the cursor into it
 * @returns besides, `trying` for what can be done with it: what was refused stands in the same place
 * @example
 * const { found, problem, load } = useLoaded<Thing[]>('/api/things')
 */
export function useLoaded<T>(read: string | (() => Promise<T>), then: (found: T) => void = () => undefined) {
  const found = shallowRef<T | null>(null)
  const { problem, trying } = useTrying()
  const begin = newestOnly()

  const load = () => trying(async () => {
    const isNewest = begin()
    const answer = typeof read === 'string' ? await api<T>(read) : await read()
    if (!isNewest()) return
    found.value = answer
    then(answer)
  })
  void load()

  return { found, problem, load, trying }
}
