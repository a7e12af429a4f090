<script setup lang="ts">
import { useKeys } from '~/composables/keys'
import { useTrying } from '~/composables/trying'
import { useWalkThrough } from '~/composables/walk-through'

/** From one record of a list to the next, without going back to it. */
const { recordId } = defineProps<{ recordId: string }>()
const { list, number, isLast, go } = useWalkThrough(recordId)
const { problem, busy, trying } = useTrying()

const step = (by: 1 | -1) => void trying(() => go(by))

useKeys([
  { keys: 'j', shown: 'J', what: 'The next record of the list', act: () => number.value !== null && !isLast.value && step(1) },
  { keys: 'b', shown: 'B', what: 'The record before it in the list', act: () => number.value !== null && number.value > 1 && step(-1) },
])
</script>

<template>
  <nav
    v-if="list && number !== null"
    class="walk small quiet"
    aria-label="The list you came from"
  >
    <button
      type="button"
      class="plain-button calm"
      :disabled="number === 1 || busy"
      @click="step(-1)"
    >
      Before <kbd>B</kbd>
    </button>
    <NuxtLink
      :to="list.address"
      class="figures"
    >
      {{ number.toLocaleString('en-US') }}{{ list.total === null ? '' : ` of ${list.total.toLocaleString('en-US')}` }}
    </NuxtLink>
    <button
      type="button"
      class="plain-button calm"
      :disabled="isLast || busy"
      @click="step(1)"
    >
      Next <kbd>J</kbd>
    </button>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </nav>
</template>

<style scoped>
.walk { display: flex; gap: var(--space-4); align-items: baseline; white-space: nowrap; }
.walk a { color: inherit; }
</style>
