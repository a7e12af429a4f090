<script setup lang="ts">
import { getCountries } from 'libphonenumber-js/max'
import { readDay, type DayOrder } from '~~/core/import/days'
import { calendarDay } from '~/words/time'
import type { ImportTarget } from '~~/core/import/targets'
import { DUPLICATE_BY, ON_DUPLICATE, type DuplicateRules } from '~~/core/import/fate'
import { can } from '~~/shared/permissions'
import { api } from '~/composables/api'
import { useMe } from '~/stores/me'
import { DUPLICATE_WORDS } from '~/words/imports'

/** How the rows are read, whose they are, and what is done with who is there already. */
const { twoWays, targets } = defineProps<{
  twoWays: { column: number, heading: string, cell: string }[]
  targets: Pick<ImportTarget, 'key'>[]
}>()
const country = defineModel<string>('country', { required: true })
const chosenOrders = defineModel<Record<number, DayOrder>>('chosenOrders', { required: true })
const duplicates = defineModel<DuplicateRules>('duplicates', { required: true })
const ownerId = defineModel<string>('ownerId', { required: true })

const names = new Intl.DisplayNames('en', { type: 'region' })
const FIRST = ['US', 'CA', 'GB']
const countries = [
  ...FIRST,
  ...getCountries()
    .filter(code => !FIRST.includes(code))
    .sort((a, b) => ((names.of(a) ?? a) < (names.of(b) ?? b) ? -1 : 1)),
].map(code => ({ code, name: names.of(code) ?? code }))
const ORDERS: DayOrder[] = ['month-first', 'day-first']
const readings = (cell: string) => ORDERS.map(value => ({ value, label: calendarDay(readDay(cell, value) ?? '') }))
/** By what a row can be found to be one that is there: of a deal only by its name. */
const KEYS = { number: 'phone', mail: 'mail', name: 'name' }
const found = computed(() => DUPLICATE_BY.filter(by => targets.some(({ key }) => key === KEYS[by])))
const people = computed(() => targets.some(({ key }) => key === 'first-name'))
const BY = computed(() => ({
  number: 'has the same number',
  mail: 'has the same mail address',
  name: found.value.length > 1 ? 'has the same name only' : 'has the same name',
}))
const ways = ON_DUPLICATE.map(value => ({ value, label: DUPLICATE_WORDS[value] }))

const me = useMe()
const owners = shallowRef([{ id: me.me!.id, name: me.me!.name }])
/** Some bring records in for nobody else. */
const mayChooseOwner = computed(() =>
  can({ id: me.me!.id, role: me.me!.role, rights: me.me!.rights, teamIds: [], peopleIds: ['others'] }, 'record.import', { ownerId: 'others' }),
)
onMounted(async () => owners.value = await api<{ id: string, name: string }[]>('/api/colleagues').catch(() => owners.value))
</script>

<template>
  <div class="rules">
    <p class="rule">
      <span id="country-label">Numbers and addresses without a country are in</span>
      <Select
        v-model="country"
        :options="countries"
        option-value="code"
        option-label="name"
        filter
        aria-labelledby="country-label"
      />
    </p>
    <p
      v-for="{ column, heading, cell } in twoWays"
      :key="column"
      class="rule"
    >
      <span :id="`order-${column}`">“{{ cell }}” in “{{ heading }}” is</span>
      <Select
        :model-value="chosenOrders[column]"
        :options="readings(cell)"
        option-value="value"
        option-label="label"
        placeholder="choose a day"
        :aria-labelledby="`order-${column}`"
        @update:model-value="chosenOrders = { ...chosenOrders, [column]: $event }"
      />
    </p>
    <p
      v-if="mayChooseOwner"
      class="rule"
    >
      <span id="owner-label">New ones belong to</span>
      <Select
        v-model="ownerId"
        :options="owners"
        option-value="id"
        option-label="name"
        aria-labelledby="owner-label"
      />
    </p>
    <p
      v-for="by in found"
      :key="by"
      class="rule"
    >
      <span :id="`by-${by}`">If {{ people ? 'somebody' : 'one' }} {{ BY[by] }},</span>
      <Select
        :model-value="duplicates[by]"
        :options="ways"
        option-value="value"
        option-label="label"
        :aria-labelledby="`by-${by}`"
        @update:model-value="duplicates = { ...duplicates, [by]: $event }"
      />
    </p>
    <p class="quiet small">
      Adding fills what is empty and adds numbers and tags. Nothing that stands there is written over.
    </p>
  </div>
</template>

<style scoped>
.rules { display: grid; gap: var(--space-3); }
.rule { display: grid; grid-template-columns: 1fr 15rem; align-items: center; gap: var(--space-5); }
@media (max-width: 700px) { .rule { grid-template-columns: 1fr; } }
</style>
