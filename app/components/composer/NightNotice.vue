<script setup lang="ts">
import type { WallMoment } from '~~/core/hours/schedule'
import type { NightQuestion } from '~/composables/composer'
import { useNow } from '~/composables/now'
import { clock, placeOf } from '~/words/time'

/** Sending into somebody's night asks first, and says what time it is there. */
const { question, later = null } = defineProps<{ question: NightQuestion, later?: WallMoment | null }>()
const emit = defineEmits<{ send: [], keep: [] }>()
const now = useNow()
const there = computed(() => question.zones.map(zone => `${clock(now.value, zone)} in ${placeOf(zone.name)}`).join(' or '))
const next = computed(() => question.notBefore && question.zones[0] ? `${clock(question.notBefore, question.zones[0])} there` : null)
</script>

<template>
  <div
    class="notice night"
    role="alert"
  >
    <p>
      <strong v-if="there && !later">It is {{ there }}.</strong> {{ question.detail }}
      <template v-if="next">
        From {{ next }} it may leave without a question.
      </template>
    </p>
    <p class="choices">
      <Button
        size="small"
        severity="secondary"
        variant="outlined"
        :label="later ? 'Let it leave then all the same' : 'Send it now all the same'"
        @click="emit('send')"
      />
      <button
        type="button"
        class="plain-button"
        @click="emit('keep')"
      >
        Keep it as a draft
      </button>
    </p>
  </div>
</template>

<style scoped>
.night { display: grid; gap: var(--space-3); margin-top: var(--space-3); }
.choices { display: flex; gap: var(--space-6); align-items: center; }
</style>
