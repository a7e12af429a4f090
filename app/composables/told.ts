import { useDebounceFn } from '@vueuse/core'
import { showPhone } from '~~/core/phone/show'
import type { Knock } from '~~/shared/knocks'
import type { Notice } from '~~/shared/live'
import type { PastNotices } from '~~/shared/notices'
import type { ConversationDetail } from '~~/shared/shelf'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { knocker, sayKnock } from '~/words/knocks'
import { api } from './api'
import { chime } from './chime'
import { useDiscreet } from './discreet'

/** Of many that come in at once one is heard. */
const QUIET_MS = 5_000
/** As many conversations are told of by name after a broken connection. */
const ONE_BY_ONE = 3

/**
 * Tells of a conversation in which something came in, as its reader has chosen: by a sound, which is off in a call, and by the
 * browser's own notification while no window of Plauder is looked at. Neither moves the page or takes the cursor. Of what a
 * colleague owes nothing is said. What came in while the connection was broken is told when it is there again.
 */
export function useTold() {
  const me = useMe()
  const calls = useCalls()
  const discreet = useDiscreet()
  const shelf = useShelf()
  const serverNow = () => Date.now() + calls.skew
  let heardAt = -Infinity
  /** All that came in until then was told. */
  let toldUntil = serverNow()

  function sound(): void {
    if (!me.me?.told.chimes || calls.on || performance.now() - heardAt < QUIET_MS) return
    heardAt = performance.now()
    chime()
  }

  const looksElsewhere = () => !!me.me?.told.notifies && !document.hasFocus() && globalThis.Notification?.permission === 'granted'

  function notify(conversationId: string, found: ConversationDetail | null): void {
    const name = !found || discreet.value ? 'Somebody' : found.records[0]?.name ?? showPhone(found.remote)
    // one a conversation, whatever the number of tabs
    const shown = new Notification(`${name} waits for an answer`, { tag: conversationId, body: found?.lineName })
    shown.addEventListener('click', () => {
      window.focus()
      void navigateTo({ path: '/inbox', query: { with: conversationId, answer: '1' } })
      shown.close()
    })
  }

  async function tellOf(conversationId: string): Promise<void> {
    if (!me.me?.told.chimes && !looksElsewhere()) return
    // where it cannot be read it is told all the same, without a name
    const found = await api<ConversationDetail>(`/api/conversations/${conversationId}`).catch(() => null)
    const isAnothers = found?.assignee && found.assignee.id !== me.me?.id
    if (isAnothers || found?.waitsSince === null) return
    if (looksElsewhere()) notify(conversationId, found)
    sound()
  }

  /** After a long time away one notification says it all. */
  function tellOfMany(count: number): void {
    if (looksElsewhere()) {
      const shown = new Notification(`${count} conversations wait for an answer`, { tag: 'inbox' })
      shown.addEventListener('click', () => {
        window.focus()
        void navigateTo('/inbox')
        shown.close()
      })
    }
    sound()
  }

  /** One notification says it, instead of the one that somebody wrote. */
  function notifyOf(knock: Knock): void {
    const title = discreet.value ? 'Something calls for you' : `${knocker(knock)} ${sayKnock(knock, serverNow())}`
    const shown = new Notification(title, { tag: knock.conversationId ?? knock.id, body: knock.line ?? undefined })
    shown.addEventListener('click', () => {
      window.focus()
      void navigateTo(knock.conversationId ? { path: '/inbox', query: { with: knock.conversationId, answer: '1' } } : `/record/${knock.record?.id}`)
      shown.close()
    })
  }

  let cameIn = new Set<string>()
  /** What comes in at once is told of at once: in a burst nobody reads who it was each time, and nothing has to be fetched for it. */
  const tellSoon = useDebounceFn(async () => {
    const all = [...cameIn]
    cameIn = new Set()
    if (all.length <= ONE_BY_ONE) return void all.forEach(conversationId => void tellOf(conversationId))
    await shelf.load()
    const owed = shelf.items.filter(({ conversationId }) => all.includes(conversationId)).length
    if (owed > 0) tellOfMany(owed)
  }, 200, { maxWait: 1_000 })

  return {
    /** Something calls for action at once. */
    knocked: (knocks: Knock[]): void => {
      if (knocks.length === 0) return
      if (looksElsewhere()) notifyOf(knocks[0]!)
      sound()
    },
    tell: ({ incoming, conversationId }: Extract<Notice, { kind: 'conversation' }>): void => {
      toldUntil = serverNow()
      if (!incoming) return
      cameIn.add(conversationId)
      void tellSoon()
    },
    catchUp: async (): Promise<void> => {
      const until = serverNow()
      const missed = await api<PastNotices>('/api/inbox/notices', { query: { after: toldUntil } }).catch(() => null)
      if (!missed) return
      toldUntil = until
      const waiting = [...new Set(missed.notices.filter(({ waits }) => waits).map(one => one.conversationId))]
      if (waiting.length > ONE_BY_ONE) return tellOfMany(waiting.length)
      for (const conversationId of waiting) void tellOf(conversationId)
    },
  }
}
