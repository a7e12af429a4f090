<script setup lang="ts">
import type { ChosenFormat } from '~~/core/hours/format'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { clock, dayName } from '~/words/time'

/** How I read times and days, everywhere in Plauder. As long as nothing is chosen, as this browser's language has it. */
const me = useMe()
const now = useNow()
const { problem, busy, trying } = useTrying()
const format = computed(() => me.me!.format)

const HOURS = [
  { value: null, label: 'As this browser’s language has it' },
  { value: 24, label: '15:30' },
  { value: 12, label: '3:30 pm' },
] as const
const ORDERS = [
  { value: null, label: 'As this browser’s language has it' },
  { value: true, label: 'Thursday 3 December' },
  { value: false, label: 'Thursday, December 3' },
] as const

const keep = (changed: Partial<ChosenFormat>) => trying(async () => {
  await api('/api/me/format', { method: 'PUT', body: { ...format.value, ...changed } })
  await me.load()
})
</script>

<template>
  <div class="page">
    <header>
      <h1>Times and dates</h1>
      <p class="quiet">
        How Plauder writes them for you. People you text from a template get them as their own country writes them.
      </p>
    </header>
    <fieldset :disabled="busy">
      <legend>Times</legend>
      <label
        v-for="{ value, label } in HOURS"
        :key="label"
      ><input
        type="radio"
        name="hours"
        :checked="format.hours === value"
        @change="keep({ hours: value })"
      > {{ label }}</label>
    </fieldset>
    <fieldset :disabled="busy">
      <legend>Days</legend>
      <label
        v-for="{ value, label } in ORDERS"
        :key="label"
      ><input
        type="radio"
        name="order"
        :checked="format.dayFirst === value"
        @change="keep({ dayFirst: value })"
      > {{ label }}</label>
    </fieldset>
    <p aria-live="polite">
      Now it is <strong class="figures">{{ clock(now, me.me!.zone) }}</strong> on <strong>{{ dayName(now, me.me!.zone, 0) }}</strong>.
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
fieldset { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); }
legend { font-weight: 700; padding: 0; margin-bottom: var(--space-3); }
label { display: flex; gap: var(--space-4); align-items: center; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>
