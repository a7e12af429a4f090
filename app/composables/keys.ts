import { tinykeys } from 'tinykeys'

export interface KeyBinding {
  /** As tinykeys writes them: `g h`, `$mod+k`, `Alt+(Digit[1-9])`. */
  keys: string
  /** As they stand in the list of keys. */
  shown: string
  what: string
  act: (event: KeyboardEvent) => void
  /** Also while somebody types. */
  inFields?: boolean
  /** Whether they mean something now: else whatever else has them gets them. */
  when?: (event: KeyboardEvent) => boolean
  /** Before anything else on the page, which does not get them then. */
  first?: boolean
}

/** Every key that works now, for the list under `?`. */
export const activeKeys = shallowRef<KeyBinding[]>([])

const inField = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement && (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName))

/**
 * Keys for as long as the component lives: the one way to listen to them, so that each is in the list. Single letters
 * work outside of fields only.
 *
 * @example
 * useKeys([{ keys: 'c', shown: 'C', what: 'Make a new thing', act: make }])
 */
export function useKeys(bindings: KeyBinding[]): void {
  let stop = () => {}
  onMounted(() => {
    activeKeys.value = [...activeKeys.value, ...bindings]
    const stops = [true, false].map(first => listen(bindings.filter(one => (one.first ?? false) === first), first))
    stop = () => stops.forEach(end => end())
  })
  onBeforeUnmount(() => {
    stop()
    activeKeys.value = activeKeys.value.filter(binding => !bindings.includes(binding))
  })
}

function listen(bindings: KeyBinding[], capture: boolean): () => void {
  if (bindings.length === 0) return () => {}
  return tinykeys(window, Object.fromEntries(bindings.map(({ keys, act, inFields, when }) => [keys, (event: KeyboardEvent) => {
    if ((inField(event) && !inFields) || when?.(event) === false) return
    event.preventDefault()
    if (capture) event.stopPropagation()
    act(event)
  }])), { capture })
}
