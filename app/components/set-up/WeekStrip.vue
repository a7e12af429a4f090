<script setup lang="ts">
import { addDays } from '~~/core/hours/days'
import { WEEKDAYS } from '~~/core/hours/say'
import { dayNumber, weekdayOf, type WeekHours } from '~~/core/hours/week'
import { windowWords } from '~/words/hours'

/** The hours of a place over the week to come, a piece for each day. */
const { week, closed, from } = defineProps<{
  week: WeekHours
  /** Days of the calendar on which nobody is reached. */
  closed: readonly string[]
  /** The first day, "2026-12-01". */
  from: string
}>()

const days = computed(() => Array.from({ length: 7 }, (_, i) => {
  const day = addDays(from, i)
  const weekday = weekdayOf(dayNumber(day))
  return { day, name: WEEKDAYS[weekday]!, hours: closed.includes(day) ? null : week[weekday]! }
}))
const words = computed(() => days.value.map(({ name, hours }) => `${name} ${windowWords(hours)}`).join(', '))
</script>

<template>
  <div
    class="strip"
    role="img"
    :aria-label="words"
  >
    <div
      v-for="{ day, name, hours } in days"
      :key="day"
      class="day"
      :title="`${name}: ${windowWords(hours)}`"
    >
      <span class="track"><span
        v-if="hours"
        class="open"
        :style="{ left: `${hours.from / 0.24}%`, width: `${(hours.to - hours.from) / 0.24}%` }"
      /></span>
      <span class="name">{{ name.slice(0, 2) }}</span>
    </div>
  </div>
</template>

<style scoped>
.strip { display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: var(--space-hair); min-width: 12rem; }
.day { display: grid; gap: var(--space-hair); }
.track { position: relative; display: block; height: 0.8rem; border-radius: var(--round-small); background: var(--rule); overflow: hidden; }
.open { position: absolute; top: 0; bottom: 0; background: var(--accent); }
.name { font-size: var(--size-small); color: var(--quiet); text-align: center; line-height: 1.1; }
</style>
