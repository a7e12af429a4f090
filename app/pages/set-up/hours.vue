<script setup lang="ts">
import type { HoursFront } from '~~/shared/hours'
import { useLoaded } from '~/composables/loaded'
import { onlyWith } from '~/composables/set-up-list'

definePageMeta({ middleware: () => onlyWith('rules.edit') })

const { found: front, problem, load } = useLoaded<HoursFront>('/api/set-up/hours')
</script>

<template>
  <SetUpRoom
    title="Hours"
    hint="When people are texted and called, by the clock where they are. Their own wish narrows it further."
    what="the hours"
    :loaded="front !== null"
    :problem="problem"
    @again="load"
  >
    <template v-if="front">
      <section>
        <h2>By place</h2>
        <p class="quiet small">
          Stricter hours for sales calls and texts, from a list of published ones. Laws change, and nobody has held these against them: check those that concern you. Whoever answers within the hour is answered at any time.
        </p>
        <PlaceHoursList
          :front="front"
          @changed="front = $event"
        />
      </section>
      <section>
        <h2>Days on which nobody is reached</h2>
        <ClosedDays
          :front="front"
          @changed="front = $event"
        />
      </section>
    </template>
  </SetUpRoom>
</template>

<style scoped>
section { max-width: 68rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
</style>
