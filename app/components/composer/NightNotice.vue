<script setup lang="ts">
import { wallOf, type WallMoment } from '~~/core/hours/schedule'
import type { NightQuestion } from '~/composables/composer'
import { useNow } from '~/composables/now'
import { sayMoment } from '~/words/moments'
import { clock, placeOf } from '~/words/time'

/** Sending into somebody's night asks first, and says what time it is there. */
const { question, later = null } = defineProps<{ question: NightQuestion, later?: WallMoment | null }>()
const emit = defineEmits<{ send: [], later: [moment: WallMoment], keep: [] }>()
const now = useNow()
const there = computed(() => question.zones.map(zone => `${clock(now.value, zone)} in ${placeOf(zone.name)}`).join(' or '))
/** The first moment at which it may leave without a question: whichever zone they are in, it is in the hours there. */
const next = computed<WallMoment | null>(() =>
  question.notBefore && question.zones[0] ? { wallTime: wallOf(question.notBefore, question.zones[0]), zone: question.zones[0].name } : null)
const nextWords = computed(() => next.value ? sayMoment(next.value) : '')
</script>

<template>
  <SendQuestion
    :label="later ? 'Let it leave then anyway' : 'Send it now anyway'"
    @send="emit('send')"
    @keep="emit('keep')"
  >
    <strong v-if="there && !later">It is {{ there }}.</strong> {{ question.detail }}
    <template
      v-if="next"
      #instead
    >
      <Button
        size="small"
        :label="`Send it at ${nextWords}`"
        @click="emit('later', next)"
      />
    </template>
  </SendQuestion>
</template>
