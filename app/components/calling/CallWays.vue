<script setup lang="ts">
import type { CallDetail } from '~~/shared/calling'
import { useCalls, type CallWay } from '~/stores/calls'

/** What can be done with a call while one talks: hand it to a colleague, send tones, leave what was spoken before. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const WAYS: { way: CallWay, name: string }[] = [
  { way: 'transfer', name: 'Transfer' },
  { way: 'tones', name: 'Tones' },
  { way: 'leave', name: 'Leave a message' },
]
/** Whoever calls us is no mailbox. */
const ways = computed(() => WAYS.filter(({ way }) => way !== 'leave' || call.direction === 'out'))
// a mailbox that answers wants a message
watch(() => call.facts.answeredBy, by => by === 'machine' && call.direction === 'out' && (calls.way ??= 'leave'), { immediate: true })
</script>

<template>
  <div class="ways">
    <p class="row">
      <button
        v-for="{ way, name } in ways"
        :key="way"
        type="button"
        class="plain-button"
        :aria-expanded="calls.way === way"
        @click="calls.way = calls.way === way ? null : way"
      >
        {{ name }}
      </button>
    </p>
    <LazyTransferForm
      v-if="calls.way === 'transfer'"
      :call="call"
    />
    <LazyToneKeys
      v-else-if="calls.way === 'tones'"
      :call="call"
    />
    <LazyLeaveSpoken
      v-else-if="calls.way === 'leave'"
      :call="call"
    />
  </div>
</template>

<style scoped>
.ways { display: grid; gap: var(--space-3); }
.row { display: flex; gap: var(--space-7); }
.row button[aria-expanded='true'] { color: var(--ink); text-decoration: underline; text-underline-offset: 4px; text-decoration-thickness: 2px; }
</style>
