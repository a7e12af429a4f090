<script setup lang="ts">
/** What is asked before a text leaves: sending it all the same, or keeping it as a draft. */
const { label } = defineProps<{ label: string }>()
const emit = defineEmits<{ send: [], keep: [] }>()
</script>

<template>
  <div
    class="notice question"
    role="alert"
  >
    <p>
      <slot />
    </p>
    <p class="choices">
      <slot name="instead" />
      <Button
        size="small"
        severity="secondary"
        variant="outlined"
        :label="label"
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
.question { display: grid; gap: var(--space-3); margin-top: var(--space-3); }
.choices { display: flex; flex-wrap: wrap; gap: var(--space-6); align-items: center; }
</style>
