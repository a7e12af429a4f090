<script setup lang="ts">
import type { StandingCounts } from '~~/shared/rounds'
import { STANDING_WORDS } from '~/words/rounds'

/** How far a round is: one bar, and the same in words. */
const { counts } = defineProps<{ counts: StandingCounts }>()

const ORDER = ['called', 'held', 'waiting', 'passed', 'skipped'] as const
const total = computed(() => ORDER.reduce((sum, state) => sum + counts[state], 0))
const parts = computed(() =>
  ORDER.filter(state => counts[state] > 0).map(state => ({
    state,
    count: counts[state],
    width: `${(counts[state] / total.value) * 100}%`,
  })),
)
const words = computed(() => parts.value.map(({ state, count }) => `${count.toLocaleString('en-US')} ${STANDING_WORDS[state]}`).join(', '))
</script>

<template>
  <div class="round-bar">
    <div
      class="bar"
      aria-hidden="true"
    >
      <span
        v-for="{ state, width } in parts"
        :key="state"
        :class="state"
        :style="{ width }"
      />
    </div>
    <p class="small figures">
      {{ words }}
    </p>
  </div>
</template>

<style scoped>
.bar { display: flex; height: 10px; border: 1px solid var(--field-rule); border-radius: var(--round-small); overflow: hidden; background: var(--surface); }
.called { background: var(--calm); }
.held { background: var(--accent); }
.passed { background: repeating-linear-gradient(45deg, var(--field-rule) 0 2px, transparent 2px 5px); }
.skipped { background: var(--rule); }
</style>
