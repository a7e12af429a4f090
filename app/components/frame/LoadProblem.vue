<script setup lang="ts">
/** Something could not be loaded: why, and the way to try again. */
const { problem, again = 'Load it again' } = defineProps<{ problem: string, again?: string }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <p
    class="notice failed"
    role="alert"
  >
    {{ problem }} <button
      type="button"
      class="plain-button"
      @click="emit('again')"
    >
      {{ again }}
    </button>
  </p>
</template>
