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
  <SendQuestion
    :label="later ? 'Let it leave then all the same' : 'Send it now all the same'"
    @send="emit('send')"
    @keep="emit('keep')"
  >
    <strong v-if="there && !later">It is {{ there }}.</strong> {{ question.detail }}
    <template v-if="next">
      From {{ next }} it may leave without a question.
    </template>
  </SendQuestion>
</template>
