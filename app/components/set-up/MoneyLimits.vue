<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { LIMIT_PERIODS, type LimitPeriod } from '~~/core/money/limit'
import { microsTyped } from '~~/core/money/typed'
import type { MoneyFront, MoneyLimit } from '~~/shared/money'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { sum } from '~/words/money'

/** How much somebody may spend on texts, or may be spent from a team's lines, in a day or a month. */
const { front } = defineProps<{ front: MoneyFront }>()
const emit = defineEmits<{ changed: [front: MoneyFront] }>()

const whose = ref('')
const period = ref<LimitPeriod>('day')
const typed = ref('')
const currency = ref(front.accounts[0]?.currency ?? '')
const choices = computed(() => [
  ...front.teams.map(({ id, name }) => ({ value: `team ${id}`, label: `from the lines of ${name}` })),
  ...front.colleagues.map(({ id, name }) => ({ value: `colleague ${id}`, label: name })),
])
const { errors, saving, save } = useSaving('micros')
const set = () => save(async () => {
  const [kind, id] = whose.value.split(' ')
  emit('changed', await api<MoneyFront>('/api/set-up/money/limits', {
    method: 'POST',
    body: {
      id: uuid(),
      colleagueId: kind === 'colleague' ? id : null,
      teamId: kind === 'team' ? id : null,
      period: period.value,
      currency: currency.value,
      micros: microsTyped(typed.value),
    },
  }))
  typed.value = whose.value = ''
})

const { problem, trying, busy } = useTrying()
const remove = ({ id }: MoneyLimit) =>
  trying(async () => emit('changed', await api<MoneyFront>(`/api/set-up/money/limits/${id}`, { method: 'DELETE' })))
const nameOf = ({ whose: { teamId, name } }: MoneyLimit) => teamId ? `From the lines of ${name}` : name
const PERIODS: Record<LimitPeriod, string> = { day: 'a day', month: 'a month' }
</script>

<template>
  <p
    v-if="front.limits.length === 0"
    class="quiet"
  >
    Nobody has a limit.
  </p>
  <ul v-else>
    <li
      v-for="limit in front.limits"
      :key="limit.id"
      class="line"
    >
      <strong>{{ nameOf(limit) }}</strong>
      <span class="figures">{{ sum(limit) }} {{ PERIODS[limit.period] }}</span>
      <span
        class="figures"
        :class="limit.spentMicros >= limit.micros ? 'waits' : 'quiet'"
      >{{ sum({ micros: limit.spentMicros, currency: limit.currency }) }} spent of it</span>
      <button
        type="button"
        class="plain-button calm"
        :aria-label="`Remove the limit of ${nameOf(limit)}, ${PERIODS[limit.period]}`"
        :disabled="busy"
        @click="remove(limit)"
      >
        Remove
      </button>
    </li>
  </ul>
  <p
    v-if="problem"
    class="notice failed"
    role="alert"
  >
    {{ problem }}
  </p>
  <form
    class="row"
    novalidate
    @submit.prevent="set"
  >
    <ChoiceField
      id="limit-whose"
      v-model="whose"
      label="For whom"
      none="Choose"
      :choices="choices"
      :error="errors.whose"
    />
    <LabelledField
      id="limit-amount"
      v-slot="{ input }"
      label="At most"
      :error="errors.micros"
    >
      <InputText
        v-bind="input"
        v-model="typed"
        inputmode="decimal"
        autocomplete="off"
        class="amount"
        placeholder="5.00"
      />
    </LabelledField>
    <ChoiceField
      v-if="front.accounts.length > 1"
      id="limit-currency"
      v-model="currency"
      label="In"
      :choices="front.accounts.map(one => ({ value: one.currency, label: one.currency }))"
    />
    <ChoiceField
      id="limit-period"
      v-model="period"
      label="In what time"
      :choices="LIMIT_PERIODS.map(value => ({ value, label: PERIODS[value] }))"
    />
    <Button
      type="submit"
      label="Set the limit"
      severity="secondary"
      :loading="saving"
    />
  </form>
</template>

<style scoped>
.line { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 1.2fr) minmax(0, 1.4fr) auto; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.waits { color: var(--waiting); }
.row { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: end; padding-top: var(--space-4); }
.amount { width: 7rem; }
@media (max-width: 700px) { .line { grid-template-columns: minmax(0, 1fr); } }
</style>
