<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { ClosedDayRow, HolidayCountry, HoursFront } from '~~/shared/hours'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { placeName, PLACES } from '~/words/places'
import { calendarDay } from '~/words/time'

/** Days on which nobody is reached: public holidays by country, and days of the firm's own. */
const { front } = defineProps<{ front: HoursFront }>()
const emit = defineEmits<{ changed: [front: HoursFront] }>()

const { problem, busy, trying } = useTrying()
/** After a refusal the box stands again as it was. */
const drawn = ref(0)
async function keep({ country }: HolidayCountry, kept: boolean): Promise<void> {
  await trying(async () => emit('changed', await api<HoursFront>(`/api/set-up/hours/holidays/${country}`, { method: 'PUT', body: { kept } })))
  drawn.value++
}

const EVERYWHERE = 'everywhere'
const day = ref('')
const where = ref(EVERYWHERE)
const name = ref('')
const { errors, saving, save } = useSaving('name')
async function add(): Promise<void> {
  const form = { id: uuid(), day: day.value, place: where.value === EVERYWHERE ? null : where.value, name: name.value }
  if (await save(async () => emit('changed', await api<HoursFront>('/api/set-up/hours/days', { method: 'POST', body: form })))) day.value = name.value = ''
}
const remove = ({ id }: ClosedDayRow) =>
  trying(async () => emit('changed', await api<HoursFront>(`/api/set-up/hours/days/${id}`, { method: 'DELETE' })))
const placeOf = ({ place }: ClosedDayRow) => place ? placeName(place) : 'everywhere'
</script>

<template>
  <ul>
    <li
      v-for="one in front.countries"
      :key="one.country"
      class="one"
    >
      <label class="keep"><input
        :key="drawn"
        type="checkbox"
        :checked="one.kept"
        :disabled="busy"
        @change="keep(one, ($event.target as HTMLInputElement).checked)"
      > Nobody is reached on public holidays in {{ placeName(one.country) }}</label>
      <span class="quiet small">{{ one.next.map(next => `${next.name}, ${calendarDay(next.day)}`).join(' · ') }}</span>
    </li>
    <li
      v-for="one in front.closed"
      :key="one.id"
      class="one"
    >
      <span><strong>{{ one.name }}</strong>, {{ placeOf(one) }}</span>
      <span>{{ calendarDay(one.day) }} <button
        type="button"
        class="plain-button calm"
        :aria-label="`Remove ${one.name}`"
        :disabled="busy"
        @click="remove(one)"
      >
        Remove
      </button></span>
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
    class="more"
    novalidate
    @submit.prevent="add"
  >
    <LabelledField
      id="closed-day"
      v-slot="{ input }"
      label="Another day"
      :error="errors.day"
    >
      <DayField
        v-bind="input"
        v-model="day"
      />
    </LabelledField>
    <LabelledField
      id="closed-name"
      v-slot="{ input }"
      label="What day it is"
      :error="errors.name"
    >
      <InputText
        v-bind="input"
        v-model="name"
        autocomplete="off"
      />
    </LabelledField>
    <ChoiceField
      id="closed-where"
      v-model="where"
      label="Where"
      :choices="[{ value: EVERYWHERE, label: 'everywhere' }, ...PLACES]"
      :error="errors.place"
    />
    <Button
      type="submit"
      label="Nobody is reached on it"
      severity="secondary"
      :loading="saving"
    />
  </form>
</template>

<style scoped>
.one { display: flex; flex-wrap: wrap; justify-content: space-between; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.keep { display: flex; gap: var(--space-3); align-items: center; }
.more { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: end; padding-top: var(--space-4); }
</style>
