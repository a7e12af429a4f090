<script setup lang="ts">
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** How good a talk was, for whoever wants to say. Choosing the same again takes it away. */
const { callId, rating } = defineProps<{ callId: string, rating: number | null }>()
const chosen = ref(rating)
const { problem, trying } = useTrying()
watch(() => rating, now => chosen.value = now)

async function rate(stars: number): Promise<void> {
  const before = chosen.value
  chosen.value = before === stars ? null : stars
  const went = await trying(() => api(`/api/calls/${callId}/rating`, { method: 'PUT', body: { rating: chosen.value } }))
  if (!went) chosen.value = before
}
</script>

<template>
  <fieldset class="rating">
    <legend class="small quiet">
      How good was the call (optional)
    </legend>
    <button
      v-for="stars in 5"
      :key="stars"
      type="button"
      :aria-pressed="chosen === stars"
      :aria-label="`${stars} of 5`"
      @click="rate(stars)"
    >
      {{ stars }}
    </button>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </fieldset>
</template>

<style scoped>
.rating { display: flex; border: 0; padding: 0; margin: 0; gap: var(--space-2); align-items: center; }
.rating legend { float: left; padding: 0 var(--space-5) 0 0; }
.rating button { width: 1.9rem; height: 1.75rem; border: 1px solid var(--field-rule); border-radius: var(--round-small); background: var(--surface); cursor: pointer; }
.rating button[aria-pressed='true'] { background: var(--calm); border-color: var(--calm); color: var(--surface); font-weight: 700; }
</style>
