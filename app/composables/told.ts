import type { Notice } from '~~/shared/live'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { nameOf } from '~/words/inbox'
import { chime } from './chime'
import { useDiscreet } from './discreet'

/** Of many that come in at once one is heard. */
const QUIET_MS = 5_000

/**
 * Tells of a conversation in which something came in, as its reader has chosen: by a sound, which is off in a call, and by the
 * browser's own notification while no window of Plauder is looked at. Neither moves the page or takes the cursor.
 */
export function useTold() {
  const me = useMe()
  const calls = useCalls()
  const shelf = useShelf()
  const discreet = useDiscreet()
  let heardAt = -Infinity

  function sound(): void {
    if (!me.me?.told.chimes || calls.on || performance.now() - heardAt < QUIET_MS) return
    heardAt = performance.now()
    chime()
  }

  const looksElsewhere = () => !!me.me?.told.notifies && !document.hasFocus() && globalThis.Notification?.permission === 'granted'

  function notify(conversationId: string): void {
    // of what another colleague owes nothing is said
    const item = shelf.items.find(one => one.conversationId === conversationId)
    if (!item) return
    // one a conversation, whatever the number of tabs
    const shown = new Notification(discreet.value ? 'Somebody has written' : `${nameOf(item)} has written`, { tag: conversationId, body: item.line })
    shown.addEventListener('click', () => {
      window.focus()
      void navigateTo({ path: '/inbox', query: { with: conversationId } })
      shown.close()
    })
  }

  /** @param loaded the shelf, as it is with what came in */
  return async (notice: Extract<Notice, { kind: 'conversation' }>, loaded: () => Promise<void>): Promise<void> => {
    if (!notice.incoming) return
    sound()
    if (!looksElsewhere()) return
    await loaded()
    notify(notice.conversationId)
  }
}
