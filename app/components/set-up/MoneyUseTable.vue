<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { USE_BY, type MoneyUse, type UseBy } from '~~/shared/money'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { USE_WORDS, sum } from '~/words/money'
import { many } from '~/words/count'
import { monthName } from '~/words/time'

/** What the money went for, by line, colleague, team or month. */
const DAY_MS = 86_400_000
const by = ref<UseBy>('line')
const days = ref('30')
const DAYS = [{ value: '7', label: 'the last 7 days' }, { value: '30', label: 'the last 30 days' }, { value: '365', label: 'the last year' }]

const { found: rows, problem, load } = useLoaded<MoneyUse[]>(() =>
  api<MoneyUse[]>('/api/set-up/money/use', { query: { by: by.value, since: Date.now() - Number(days.value) * DAY_MS } }))
watch([by, days], () => {
  rows.value = null
  void load()
})
defineExpose({ load })

/** Bars compare within a currency. */
const width = computed(() => {
  const most = new Map<string, number>()
  for (const { currency, micros } of rows.value ?? []) most.set(currency, Math.max(most.get(currency) ?? 0, micros))
  return ({ currency, micros }: MoneyUse) => scaleLinear([0, most.get(currency) || 1], [0, 100]).clamp(true)(micros)
})
const nameOf = ({ key, name }: MoneyUse) => key === '' ? USE_WORDS[by.value].none : by.value === 'month' ? monthName(key) : name
</script>

<template>
  <div class="asked">
    <ChoiceField
      id="use-by"
      v-model="by"
      label="By"
      :choices="USE_BY.map(value => ({ value, label: USE_WORDS[value].name }))"
    />
    <ChoiceField
      id="use-since"
      v-model="days"
      label="In"
      :choices="DAYS"
    />
  </div>
  <LoadProblem
    v-if="problem"
    :problem="problem"
    again="Load it again"
    @again="load"
  />
  <p
    v-else-if="!rows"
    class="quiet"
    role="status"
  >
    Adding it up…
  </p>
  <p
    v-else-if="rows.length === 0"
    class="quiet"
  >
    Nothing was spent.
  </p>
  <table v-else>
    <caption class="heard-only">
      What was spent
    </caption>
    <tbody>
      <tr
        v-for="row in rows"
        :key="`${row.key} ${row.currency}`"
      >
        <th scope="row">
          {{ nameOf(row) }}
        </th>
        <td class="figures right">
          {{ sum(row) }}
        </td>
        <td class="figures quiet right">
          {{ many(row.texts, 'text', 'texts') }}{{ row.calls > 0 ? `, ${many(row.calls, 'call', 'calls')}` : '' }}
        </td>
        <td
          class="drawn"
          aria-hidden="true"
        >
          <span
            class="bar"
            :style="{ width: `${width(row)}%` }"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.asked { display: flex; flex-wrap: wrap; gap: var(--space-5); padding-bottom: var(--space-4); }
table { width: 100%; border-collapse: collapse; }
tr { border-top: 1px solid var(--rule); }
th { text-align: start; font-weight: 400; }
th, td { padding: var(--space-2) var(--space-5) var(--space-2) 0; }
.right { text-align: end; white-space: nowrap; }
.drawn { width: 45%; padding-inline-end: 0; }
.bar { display: block; height: 8px; min-width: 1px; background: var(--accent); }
</style>
