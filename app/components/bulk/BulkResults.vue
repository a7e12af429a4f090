<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import { explain } from '~~/core/message/words'
import { sayMoney } from '~~/core/numbers/money'
import type { BulkResults, BulkTextDetail } from '~~/shared/bulk-texts'
import { useLoaded } from '~/composables/loaded'
import { many } from '~/words/count'
import { sayWhatItMade, sayWhichMore } from '~/words/shares'
import { span } from '~/words/time'

/** What became of a bulk text: who answered and how fast, what did not arrive, what it cost, and what it made beside those who were held back. */
const { bulk, changes } = defineProps<{ bulk: BulkTextDetail, /** Grows when something happened to it. */ changes: number }>()

const OFTEN_MS = 5_000
const { found: results, problem, load } = useLoaded<BulkResults>(`/api/bulk-texts/${bulk.id}/results`)
// of a large one all that has become of it takes a while to count, and nobody waits for each
watch(() => changes, useThrottleFn(load, OFTEN_MS, true))
watch(() => bulk.state, load)
const rows = computed(() => results.value
  ? [
      { name: 'Answered', hits: results.value.answered },
      ...results.value.heldOut ? [{ name: 'Wrote, though held back', hits: results.value.heldOut }] : [],
      { name: 'Opted out', hits: results.value.optedOut },
    ]
  : [])
/** Each with its own wording: those to whom something has gone. */
const audiences = computed(() => bulk.audiences.filter(({ answered }) => answered.of > 0).map(({ name, answered }) => ({ name, hits: answered })))
const facts = computed(() => [
  results.value && results.value.medianMs !== null && `Half of the answers came within ${span(results.value.medianMs)}.`,
  results.value?.cost && `It cost ${sayMoney(results.value.cost)}.`,
].filter(Boolean))
</script>

<template>
  <section aria-label="What became of it">
    <h2>What became of it</h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-else-if="!results"
      class="quiet"
      role="status"
    >
      Counting what became of it…
    </p>
    <p
      v-else-if="results.answered.of === 0"
      class="quiet"
    >
      Nothing has gone yet.
    </p>
    <template v-else>
      <ShareBars :rows="rows" />
      <p class="quiet small">
        An answer counts for {{ results.days }} days. In brackets: what the share may as well be, nineteen times of twenty.
      </p>
      <p v-if="results.heldOut">
        <strong>{{ sayWhatItMade(results.answered, results.heldOut) }}</strong>&#32;
        <span class="quiet">{{ many(results.heldOut.of, 'person was', 'people were') }} held back by chance.</span>
      </p>
      <div
        v-if="audiences.length > 1"
        class="audiences"
      >
        <h3>Answered, by audience</h3>
        <ShareBars :rows="audiences" />
        <p v-if="audiences.length === 2">
          {{ sayWhichMore(audiences[0]!, audiences[1]!) }}
        </p>
      </div>
      <p v-if="facts.length > 0">
        {{ facts.join(' ') }}
      </p>
      <ul v-if="results.failed.length > 0">
        <li
          v-for="{ state, code, people } in results.failed"
          :key="`${state} ${code}`"
        >
          <strong class="figures">{{ people.toLocaleString('en-US') }}</strong> did not arrive: {{ explain(state, code)?.why }}
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
section { display: grid; gap: var(--space-3); max-width: 60rem; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
h3 { font-size: var(--size-text); }
.audiences { display: grid; gap: var(--space-3); }
h2 { font-size: var(--size-text); }
ul { padding: 0; list-style: none; }
</style>
