<script setup lang="ts">
import type { DoubtQuestion } from '~/composables/composer'

/** What somebody should look at once more before a text leaves; it asks, and stands in nobody's way. */
const { question } = defineProps<{ question: DoubtQuestion }>()
const emit = defineEmits<{ send: [], keep: [] }>()
</script>

<template>
  <div
    class="notice doubt"
    role="alert"
  >
    <p>{{ question.detail }}</p>
    <p class="choices">
      <Button
        size="small"
        severity="secondary"
        variant="outlined"
        :label="question.doubt === 'twice' ? 'Send it once more' : 'Send it all the same'"
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
.doubt { display: grid; gap: var(--space-3); margin-top: var(--space-3); }
.choices { display: flex; gap: var(--space-6); align-items: center; }
</style>
