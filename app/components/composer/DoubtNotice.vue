<script setup lang="ts">
import type { DoubtQuestion } from '~/composables/composer'

/** What somebody should look at once more before a text leaves; it asks, and stands in nobody's way. */
const { question } = defineProps<{ question: DoubtQuestion }>()
const emit = defineEmits<{ send: [], keep: [] }>()
</script>

<template>
  <SendQuestion
    :label="question.doubt === 'twice' ? 'Send it once more' : 'Send it anyway'"
    @send="emit('send')"
    @keep="emit('keep')"
  >
    {{ question.detail }}
  </SendQuestion>
</template>
