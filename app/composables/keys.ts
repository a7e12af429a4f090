import { tinykeys } from 'tinykeys'

export interface KeyBinding { keys: string, shown: string, what: string, act: (event: KeyboardEvent) => void, inFields?: boolean }

/** Every key that works now, for the list under `?`. */
export const activeKeys = shallowRef<KeyBinding[]>([])

const inField = (event: KeyboardEvent) => event.target instanceof HTMLElement && (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName))

/** Keys for as long as the component lives. Single letters work outside of fields only. */
export function useKeys(bindings: KeyBinding[]): void {
  let stop = () => {}
  onMounted(() => {
    activeKeys.value = [...activeKeys.value, ...bindings]
    stop = tinykeys(window, Object.fromEntries(bindings.map(({ keys, act, inFields }) => [keys, (event: KeyboardEvent) => {
      if (inField(event) && !inFields) return
      event.preventDefault()
      act(event)
    }])))
  })
  onBeforeUnmount(() => {
    stop()
    activeKeys.value = activeKeys.value.filter(binding => !bindings.includes(binding))
  })
}
