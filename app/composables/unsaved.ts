import { useEventListener } from '@vueuse/core'
import { useLeaving } from '~/stores/leaving'

/**
 * A form whose changes would be lost: leaving its page or reloading it asks first.
 *
 * @param changed whether there is anything to lose
 * @returns what to ask before it is closed or another one takes its place
 */
export function useUnsaved(changed: () => boolean) {
  const leaving = useLeaving()
  const mayLeave = async () => !changed() || leaving.ask()
  onBeforeRouteLeave(mayLeave)
  onBeforeRouteUpdate(mayLeave)
  useEventListener(window, 'beforeunload', event => changed() && event.preventDefault())
  return { mayLeave }
}
