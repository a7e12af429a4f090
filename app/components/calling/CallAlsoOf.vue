<script setup lang="ts">
import type { CallDetail } from '~~/shared/calling'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useCalls } from '~/stores/calls'

/** Several people have the number from which a call came in: one says who it is. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const { problem, trying } = useTrying()

async function say(recordId: string): Promise<void> {
  if (await trying(() => api(`/api/entries/${call.activityId}/meant`, { method: 'POST', body: { recordId } }))) await calls.load()
}
</script>

<template>
  <p class="also">
    Or is it
    <button
      v-for="one in call.alsoOf"
      :key="one.id"
      type="button"
      class="plain-button"
      @click="say(one.id)"
    >
      {{ one.name }}
    </button>
    <span class="quiet">{{ call.alsoOf.length === 1 ? 'who has' : 'who have' }} this number too?</span>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </p>
</template>

<style scoped>
.also { display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-1) var(--space-4); }
</style>
