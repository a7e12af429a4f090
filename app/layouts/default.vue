<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import { useLive } from '~/composables/live'
import { useDiscreet } from '~/composables/discreet'
import { useKeys } from '~/composables/keys'
import { useRinging } from '~/composables/ringing'
import { useDrafts } from '~/stores/drafts'
import { useLeaving } from '~/stores/leaving'
import { useMe } from '~/stores/me'
import { useCallNotes } from '~/stores/call-notes'
import { useCalls } from '~/stores/calls'
import { useRounds } from '~/stores/rounds'
import { useKnocks } from '~/stores/knocks'
import { useShelf } from '~/stores/shelf'
import { useTold } from '~/composables/told'
import { readersFormat } from '~/words/reader'

const me = useMe()
const route = useRoute()
const shelf = useShelf()
const calls = useCalls()
const rounds = useRounds()
const knocks = useKnocks()
const leaving = useLeaving()
const keysShown = ref(false)
const told = useTold()
const discreet = useDiscreet()

void shelf.load()
void calls.load()
void rounds.load()
void knocks.load()
// notes of calls that could not be saved before
useCallNotes()
// what was written elsewhere; without it, what lies in this browser is there all the same
useDrafts().load().catch(() => undefined)
// the first at once: somebody waits to see it; of many that come together no more than a few are fetched
const soon = (load: () => Promise<void>) => useThrottleFn(load, 150, true)
const [loadSoon, roundsSoon, knocksSoon] = [soon(shelf.load), soon(rounds.load), soon(knocks.load)]
useRinging(() => calls.ringing.map(({ line }) => line.ringSound), () => calls.on !== null)
useLive((notice) => {
  // at once: somebody waits for it to ring
  if (notice.kind === 'call') return void calls.load()
  if (notice.kind === 'round') return void (notice.roundId === rounds.mine?.id && roundsSoon())
  if (notice.kind === 'knock') return void knocks.load()
  if (notice.kind === 'money' || notice.kind === 'terms') return void me.countAgain()
  // what was answered, or done, knocks no more
  if (knocks.open.length > 0 && (notice.kind === 'conversation' || notice.kind === 'task')) void knocksSoon()
  if (notice.kind !== 'conversation') return
  void loadSoon()
  told.tell(notice)
}, () => {
  void told.catchUp()
  void shelf.load()
  void calls.load()
  void rounds.load()
  void knocks.load()
})
// those that were there before the page are not new
watch(() => [knocks.loaded, knocks.open] as const, ([, open], [was, before]) => {
  if (was) told.knocked(open.filter(one => !one.seen && !before.some(({ id, times, step }) => id === one.id && times === one.times && step === one.step)))
})

const hide = () => discreet.value = !discreet.value
useKeys([
  { keys: '$mod+Shift+h', shown: 'Ctrl Shift H', what: 'Hide names and words while writing, and show them again', act: hide, inFields: true, everywhere: true },
  ...[
    { keys: 'Shift+?', shown: '?', what: 'This list of keys', act: () => (keysShown.value = true) },
    { keys: 'h', shown: 'H', what: 'Hide names and words, and show them again', act: hide },
    { keys: 'g h', shown: 'G H', what: 'Go to today', act: () => navigateTo('/') },
    { keys: 'g i', shown: 'G I', what: 'Go to the inbox', act: () => navigateTo('/inbox') },
    { keys: 'g l', shown: 'G L', what: 'Go to leads', act: () => navigateTo('/records/leads') },
    { keys: 'g c', shown: 'G C', what: 'Go to candidates', act: () => navigateTo('/records/candidates') },
    { keys: 'g k', shown: 'G K', what: 'Go to clients', act: () => navigateTo('/records/clients') },
    { keys: 'g r', shown: 'G R', what: 'Go to the call rounds', act: () => navigateTo('/calling') },
    { keys: 'g d', shown: 'G D', what: 'Go to my drafts', act: () => navigateTo('/drafts') },
    { keys: 'g t', shown: 'G T', what: 'Go to templates', act: () => navigateTo('/templates') },
  ].map(one => ({ ...one, everywhere: true })),
  {
    keys: 'Alt+a',
    shown: 'Alt A',
    what: 'Answer the call that rings',
    act: () => calls.ringing[0] && void calls.answer(calls.ringing[0]),
    inFields: true,
  },
  {
    keys: 'Alt+Shift+a',
    shown: 'Alt Shift A',
    what: 'Answer the second call that rings',
    act: () => calls.ringing[1] && void calls.answer(calls.ringing[1]),
    inFields: true,
  },
  {
    keys: 'Alt+h',
    shown: 'Alt H',
    what: 'Hold the call, or go on with it',
    act: () => calls.on && void calls.order(calls.on, calls.stateOf(calls.on) === 'held' ? 'resume' : 'hold'),
    inFields: true,
  },
  { keys: 'Alt+d', shown: 'Alt D', what: 'Call a number', act: () => (calls.dialling = true), inFields: true },
  { keys: 'Alt+e', shown: 'Alt E', what: 'End the call', act: calls.hangUp, inFields: true },
  {
    keys: 'Alt+c',
    shown: 'Alt C',
    what: 'Open the call on the shelf',
    act: () => (calls.openId = (calls.on ?? calls.ringing[0] ?? calls.calls[0])?.id ?? null),
    inFields: true,
  },
  { keys: 'a', shown: 'A', what: 'Answer whoever waits longest', act: () => (shelf.openId = shelf.shown[0]?.conversationId ?? null) },
])
useHead({ htmlAttrs: { class: computed(() => [discreet.value ? 'discreet' : '', readersFormat().hours === 12 ? 'twelve-hours' : ''].join(' ')) }, title: computed(() => `${shelf.total > 0 ? `(${shelf.total}) ` : ''}Plauder`) })
</script>

<template>
  <div class="frame">
    <a
      class="skip"
      href="#page"
    >To the page</a>
    <PlaceRail />
    <div class="desk">
      <p
        v-if="discreet"
        class="discreet-line"
        role="status"
      >
        Names, numbers and words are hidden. <button
          type="button"
          class="plain-button"
          @click="hide"
        >
          Show them again
        </button> <kbd>H</kbd>
      </p>
      <p
        v-if="me.me?.termsUnread && route.path !== '/terms'"
        class="terms"
        role="status"
      >
        Before you text: <NuxtLink to="/terms">read the terms of use</NuxtLink>
      </p>
      <HeaderLine @show-keys="keysShown = true" />
      <ShelfStrip />
      <main
        id="page"
        class="page"
        tabindex="-1"
      >
        <slot />
      </main>
    </div>
    <LazyKeyDialog
      v-if="keysShown"
      v-model="keysShown"
    />
    <LazyCallNight v-if="calls.night" />
    <LazyDialDialog v-if="calls.dialling" />
    <LazyLeaveQuestion v-if="leaving.asked" />
    <LazySignInAgain v-if="me.expired" />
  </div>
</template>

<style scoped>
.frame { display: grid; grid-template-columns: 84px minmax(0, 1fr); min-height: 100vh; }
.desk { display: grid; grid-template: auto auto auto 1fr / minmax(0, 1fr); min-width: 0; position: relative; }
.terms { padding: var(--space-3) var(--space-8); border-bottom: 1px solid var(--rule); color: var(--waiting); }
/* the last row, whether or not there is anything to read before */
.page { grid-row: 4; min-width: 0; }
.page:focus-visible { outline: none; }
.discreet-line { position: fixed; bottom: 0; left: 50%; translate: -50%; z-index: 60; padding: var(--space-3) var(--space-6); background: var(--ink); color: var(--paper); border-radius: var(--round-large) var(--round-large) 0 0; white-space: nowrap; }
.discreet-line .plain-button { color: inherit; text-decoration: underline; }
.skip { position: absolute; left: -100vw; background: var(--surface); padding: var(--space-3); z-index: 50; }
.skip:focus { left: 0.5rem; top: 0.5rem; }
@media (max-width: 700px) {
  .frame { grid-template-columns: minmax(0, 1fr); grid-template-rows: 1fr auto; }
  .desk { grid-row: 1; padding-bottom: 60px; }
}
</style>
