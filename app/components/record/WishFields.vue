<script setup lang="ts">
import { ALLOWED_HOURS } from '~~/core/hours/reachable'
import { hourOfDay } from '~/words/time'

/** Between which of their hours a person wants to be reached: "only mornings". */
const { errors } = defineProps<{ errors: { wishFrom?: string, wishTo?: string } }>()
const from = defineModel<number | null>('from', { required: true })
const to = defineModel<number | null>('to', { required: true })

const hours = Array.from({ length: ALLOWED_HOURS.to - ALLOWED_HOURS.from + 1 }, (_, i) => ALLOWED_HOURS.from + i)
const hourOf = (event: Event) => Number((event.target as HTMLSelectElement).value) || null

/** One hour alone says nothing: the other end is that of everybody, until somebody says otherwise. */
function setFrom(hour: number | null): void {
  from.value = hour
  to.value = hour === null ? null : to.value ?? ALLOWED_HOURS.to
}

function setTo(hour: number | null): void {
  to.value = hour
  from.value = hour === null ? null : from.value ?? ALLOWED_HOURS.from
}
</script>

<template>
  <LabelledField
    id="wishFrom"
    v-slot="{ input }"
    label="Prefers to be reached from"
    :error="errors.wishFrom"
  >
    <select
      :id="input.id"
      class="plain-field"
      :value="from ?? ''"
      :aria-invalid="!!errors.wishFrom"
      @change="setFrom(hourOf($event))"
    >
      <option value="">
        Any hour
      </option>
      <option
        v-for="hour in hours.slice(0, -1)"
        :key="hour"
        :value="hour"
      >
        {{ hourOfDay(hour) }} their time
      </option>
    </select>
  </LabelledField>
  <LabelledField
    id="wishTo"
    v-slot="{ input }"
    label="until"
    :error="errors.wishTo"
  >
    <select
      :id="input.id"
      class="plain-field"
      :value="to ?? ''"
      :aria-invalid="!!errors.wishTo"
      @change="setTo(hourOf($event))"
    >
      <option value="">
        Any hour
      </option>
      <option
        v-for="hour in hours.slice(1)"
        :key="hour"
        :value="hour"
      >
        {{ hourOfDay(hour) }} their time
      </option>
    </select>
  </LabelledField>
</template>
