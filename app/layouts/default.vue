<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { useLive } from '~/composables/live'
import { useKeys } from '~/composables/keys'
import { useDrafts } from '~/stores/drafts'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { chime } from '~/composables/chime'

const me = useMe()
const shelf = useShelf()
const keysShown = ref(false)

void shelf.load()
// what was written elsewhere; without it, what lies in this browser is there all the same
useDrafts().load().catch(() => undefined)
const loadSoon = useDebounceFn(shelf.load, 150)
useLive((notice) => {
  if (notice.kind !== 'conversation') return
  if (notice.incoming) chime()
  void loadSoon()
}, () => void shelf.load())

useKeys([
  { keys: 'Shift+?', shown: '?', what: 'This list of keys', act: () => keysShown.value = true },
  { keys: 'g l', shown: 'G L', what: 'Go to leads', act: () => navigateTo('/records/leads') },
  { keys: 'g c', shown: 'G C', what: 'Go to candidates', act: () => navigateTo('/records/candidates') },
  { keys: 'g k', shown: 'G K', what: 'Go to clients', act: () => navigateTo('/records/clients') },
  { keys: 'g d', shown: 'G D', what: 'Go to my drafts', act: () => navigateTo('/drafts') },
  { keys: 'g t', shown: 'G T', what: 'Go to templates', act: () => navigateTo('/templates') },
  { keys: 'a', shown: 'A', what: 'Answer whoever waits longest', act: () => shelf.openId = shelf.shown[0]?.conversationId ?? null },
])
useHead({ title: computed(() => `${shelf.total > 0 ? `(${shelf.total}) ` : ''}Plauder`) })
</script>

<template>
  <div class="frame">
    <a
      class="skip"
      href="#page"
    >To the page</a>
    <PlaceRail />
    <div class="desk">
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
    <KeyDialog v-model="keysShown" />
    <SignInAgain v-if="me.expired" />
  </div>
</template>

<style scoped>
.frame { display: grid; grid-template-columns: 84px minmax(0, 1fr); min-height: 100vh; }
.desk { display: grid; grid-template: auto auto 1fr / minmax(0, 1fr); min-width: 0; position: relative; }
.page { min-width: 0; }
.page:focus-visible { outline: none; }
.skip { position: absolute; left: -100vw; background: var(--surface); padding: 0.5rem; z-index: 50; }
.skip:focus { left: 0.5rem; top: 0.5rem; }
@media (max-width: 700px) {
  .frame { grid-template-columns: minmax(0, 1fr); grid-template-rows: 1fr auto; }
  .desk { grid-row: 1; padding-bottom: 60px; }
}
</style>
