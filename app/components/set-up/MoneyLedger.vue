<script setup lang="ts">
import { sayMoney } from '~~/core/numbers/money'
import { ENTRY_KINDS, type EntryKind, type LedgerEntry } from '~~/shared/money'
import { useFurther } from '~/composables/further'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { ENTRY_WORDS } from '~/words/money'
import { clock, dayName } from '~/words/time'

/** Everything that came in and was spent, the newest first, page after page. */
const kind = ref<EntryKind | ''>('')
const { entries, next, problem, busy, load, further } = useFurther<LedgerEntry>('/api/set-up/money/ledger', () => ({ kind: kind.value }))
defineExpose({ load })

const now = useNow()
const zone = computed(() => useMe().me!.zone)
const signed = ({ micros, currency }: LedgerEntry) => `${micros > 0 ? '+' : '−'}${sayMoney({ micros: Math.abs(micros), currency })}`
</script>

<template>
  <ChoiceField
    id="ledger-kind"
    v-model="kind"
    label="Show"
    :choices="[{ value: '', label: 'everything' }, ...ENTRY_KINDS.map(value => ({ value, label: ENTRY_WORDS[value].several }))]"
  />
  <LoadProblem
    v-if="problem"
    :problem="problem"
    again="Load it again"
    @again="load"
  />
  <p
    v-if="!entries && !problem"
    class="quiet"
    role="status"
  >
    Loading the ledger…
  </p>
  <p
    v-else-if="entries?.length === 0"
    class="quiet"
  >
    Nothing stands in it.
  </p>
  <ol
    v-else-if="entries"
    class="ledger"
  >
    <li
      v-for="entry in entries"
      :key="entry.id"
      class="line"
    >
      <span class="quiet">{{ dayName(entry.at, zone, now) }}, {{ clock(entry.at, zone) }}</span>
      <span>{{ ENTRY_WORDS[entry.kind].one }}<template v-if="entry.line"> from {{ entry.line }}</template><template v-if="entry.words">: {{ entry.words }}</template></span>
      <span class="quiet">{{ entry.colleague ?? (entry.kind === 'text' ? 'Plauder' : '') }}</span>
      <span
        class="figures right"
        :class="{ came: entry.micros > 0 }"
      >{{ signed(entry) }}</span>
    </li>
  </ol>
  <p v-if="next">
    <button
      type="button"
      class="plain-button"
      :disabled="busy"
      @click="further"
    >
      Earlier entries
    </button>
  </p>
</template>

<style scoped>
.ledger { list-style: none; padding: var(--space-4) 0 0; margin: 0; }
.line { display: grid; grid-template-columns: 12rem minmax(0, 2fr) minmax(0, 1fr) 6rem; gap: var(--space-2) var(--space-5); border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
.right { text-align: end; }
.came { font-weight: 700; }
@media (max-width: 700px) { .line { grid-template-columns: minmax(0, 1fr) auto; } }
</style>
