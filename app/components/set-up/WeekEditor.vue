<script setup lang="ts">
import { ALLOWED_HOURS } from '~~/core/hours/reachable'
import type { HoursWindow, WeekHours } from '~~/core/hours/week'
import { hourWords } from '~/words/hours'

/** The hours of a place: of the working days together, and of each day of the weekend. */
const { place, week, errors, saving } = defineProps<{ place: string, week: WeekHours, errors: Record<string, string>, saving: boolean }>()
const emit = defineEmits<{ save: [week: WeekHours], close: [] }>()

const DAYS = [{ name: 'Monday to Friday', days: [1, 2, 3, 4, 5] }, { name: 'Saturday', days: [6] }, { name: 'Sunday', days: [0] }] as const
const HOURS = Array.from({ length: (ALLOWED_HOURS.to - ALLOWED_HOURS.from) * 2 + 1 }, (_, i) => ALLOWED_HOURS.from + i / 2)

const within = (hour: number) => Math.min(Math.max(hour, ALLOWED_HOURS.from), ALLOWED_HOURS.to)
const form = reactive(DAYS.map(({ days: [first] }) => {
  const hours = week[first]
  return { on: !!hours, from: within(hours?.from ?? ALLOWED_HOURS.from), to: within(hours?.to ?? ALLOWED_HOURS.to) }
}))
const errorOf = (i: number) => errors[`week[${DAYS[i]!.days[0]}]`] ?? ''

function save(): void {
  const days: (HoursWindow | null)[] = Array.from({ length: 7 }, () => null)
  for (const [i, { on, from, to }] of form.entries()) for (const day of DAYS[i]!.days) days[day] = on ? { from, to } : null
  emit('save', days)
}

const first = useTemplateRef<HTMLElement>('first')
onMounted(() => first.value?.querySelector('input')?.focus())
</script>

<template>
  <form
    ref="first"
    class="editor"
    novalidate
    :aria-label="`Hours of ${place}`"
    @submit.prevent="save"
    @keydown.esc.stop="emit('close')"
  >
    <fieldset
      v-for="(one, i) in form"
      :key="DAYS[i]!.name"
      class="days"
    >
      <label class="on"><input
        v-model="one.on"
        type="checkbox"
      > {{ DAYS[i]!.name }}</label>
      <template v-if="one.on">
        <select
          v-model.number="one.from"
          class="plain-field"
          :aria-label="`${DAYS[i]!.name}, from`"
        >
          <option
            v-for="hour in HOURS.slice(0, -1)"
            :key="hour"
            :value="hour"
          >
            {{ hourWords(hour) }}
          </option>
        </select>
        <span>to</span>
        <select
          v-model.number="one.to"
          class="plain-field"
          :aria-label="`${DAYS[i]!.name}, to`"
        >
          <option
            v-for="hour in HOURS.slice(1)"
            :key="hour"
            :value="hour"
          >
            {{ hourWords(hour) }}
          </option>
        </select>
      </template>
      <span
        v-else
        class="quiet"
      >not at all</span>
      <span
        v-if="errorOf(i)"
        class="wrong"
        role="alert"
      >{{ errorOf(i) }}</span>
    </fieldset>
    <p
      v-if="errors.week"
      class="wrong"
      role="alert"
    >
      {{ errors.week }}
    </p>
    <p class="choices">
      <Button
        type="submit"
        label="Hold to these hours"
        :loading="saving"
      />
      <button
        type="button"
        class="plain-button"
        @click="emit('close')"
      >
        Leave it
      </button>
    </p>
  </form>
</template>

<style scoped>
.editor { display: grid; gap: var(--space-3); padding: var(--space-3) 0; }
.days { display: flex; flex-wrap: wrap; gap: var(--space-3); align-items: center; border: 0; padding: 0; margin: 0; }
.on { display: flex; gap: var(--space-3); align-items: center; min-width: 11rem; }
.choices { display: flex; gap: var(--space-6); align-items: center; padding-top: var(--space-2); }
.wrong { color: var(--wrong); }
</style>
