<script setup lang="ts">
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { clock, placeOf } from '~/words/time'

/** Calling into somebody's night asks first, and says what time it is there. */
const calls = useCalls()
const now = useNow()
const there = computed(() => calls.night?.question.zones.map(zone => `${clock(now.value, zone)} in ${placeOf(zone.name)}`).join(' or '))
const shown = computed({ get: () => calls.night !== null, set: open => open || (calls.night = null) })
</script>

<template>
  <Dialog
    v-model:visible="shown"
    modal
    :header="`Call ${calls.night?.asked.name} now?`"
    :style="{ width: '28rem' }"
  >
    <p>
      <strong v-if="there">It is {{ there }}.</strong> {{ calls.night?.question.detail }}
    </p>
    <p class="choices">
      <Button
        label="Call anyway"
        severity="secondary"
        variant="outlined"
        @click="calls.dial(calls.night!.asked, true)"
      />
      <button
        type="button"
        class="plain-button"
        @click="calls.night = null"
      >
        Do not call
      </button>
    </p>
  </Dialog>
</template>

<style scoped>
.choices { display: flex; gap: var(--space-6); align-items: center; padding-top: var(--space-5); }
</style>
