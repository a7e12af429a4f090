import { showPhone } from '~~/core/phone/show'
import type { Notice } from '~~/shared/live'
import type { ConversationDetail } from '~~/shared/shelf'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { api } from './api'
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
  const discreet = useDiscreet()
  let heardAt = -Infinity

  function sound(): void {
    if (!me.me?.told.chimes || calls.on || performance.now() - heardAt < QUIET_MS) return
    heardAt = performance.now()
    chime()
  }

  const looksElsewhere = () => !!me.me?.told.notifies && !document.hasFocus() && globalThis.Notification?.permission === 'granted'

  async function notify(conversationId: string): Promise<void> {
    // without it nothing is lost: what waits stands on the shelf
    const found = await api<ConversationDetail>(`/api/conversations/${conversationId}`).catch(() => null)
    // of what another colleague owes nothing is said
    if (!found || (found.assignee && found.assignee.id !== me.me?.id)) return
    const name = found.records[0]?.name ?? showPhone(found.remote)
    // one a conversation, whatever the number of tabs
    const shown = new Notification(`${discreet.value ? 'Somebody' : name} waits for an answer`, { tag: conversationId, body: found.lineName })
    shown.addEventListener('click', () => {
      window.focus()
      void navigateTo({ path: '/inbox', query: { with: conversationId } })
      shown.close()
    })
  }

  return ({ incoming, conversationId }: Extract<Notice, { kind: 'conversation' }>): void => {
    if (!incoming) return
    sound()
    if (looksElsewhere()) void notify(conversationId)
  }
}
