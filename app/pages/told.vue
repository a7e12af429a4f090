<script setup lang="ts">
import { api } from '~/composables/api'
import { chime } from '~/composables/chime'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

/** How I am told of what comes in. The browser is asked only once somebody wants it. */
const me = useMe()
const { problem, busy, trying } = useTrying()
const told = computed(() => me.me!.told)
const refused = ref(false)

const keep = (changed: Partial<typeof told.value>) => trying(async () => {
  await api('/api/me/told', { method: 'PUT', body: { ...told.value, ...changed } })
  await me.load()
})

async function keepNotifies(wanted: boolean): Promise<void> {
  refused.value = false
  if (wanted && await globalThis.Notification?.requestPermission() !== 'granted') return void (refused.value = true)
  await keep({ notifies: wanted })
}

async function keepChimes(wanted: boolean): Promise<void> {
  if (await keep({ chimes: wanted }) && wanted) chime()
}
</script>

<template>
  <div class="page">
    <header>
      <h1>How I am told</h1>
      <p class="quiet">
        When a text or a missed call comes in. What waits for an answer is counted in the header and in the window’s title either way.
      </p>
    </header>
    <label class="choice"><ToggleSwitch
      :model-value="told.chimes"
      :disabled="busy"
      @update:model-value="keepChimes"
    /> <span>A short sound <span class="quiet">not during a call, and only once when several come in together.</span></span></label>
    <label class="choice"><ToggleSwitch
      :model-value="told.notifies"
      :disabled="busy"
      @update:model-value="keepNotifies"
    /> <span>The browser’s notifications <span class="quiet">while you look at something else. They say who waits for an answer, and lead to the conversation.</span></span></label>
    <p
      v-if="refused"
      class="notice failed"
      role="alert"
    >
      This browser does not allow notifications from Plauder. Allow them in the browser’s settings for this page, then switch them on here.
    </p>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; max-width: 44rem; }
.choice { display: flex; gap: var(--space-5); align-items: start; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>
