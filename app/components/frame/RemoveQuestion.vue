<script setup lang="ts">
/** Asks once more before something is removed; what goes and what stays is said in it. */
const { busy = false } = defineProps<{ busy?: boolean }>()
const emit = defineEmits<{ remove: [], keep: [] }>()
const keep = useTemplateRef<HTMLElement>('keep')
// whoever came by key goes on by key, and a second press of it removes nothing
onMounted(() => keep.value?.focus())
</script>

<template>
  <p
    class="notice"
    role="group"
    aria-label="Remove?"
    @keydown.esc.stop="emit('keep')"
  >
    <slot />
    <button
      type="button"
      class="plain-button wrong"
      :disabled="busy"
      @click="emit('remove')"
    >
      Remove it
    </button>
    <button
      ref="keep"
      type="button"
      class="plain-button calm"
      @click="emit('keep')"
    >
      Keep it
    </button>
  </p>
</template>

<style scoped>
.plain-button { margin-left: var(--space-5); }
</style>
