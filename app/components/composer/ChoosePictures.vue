<script setup lang="ts">
/** The button that chooses pictures from the computer; how it looks is up to whoever has it. */
defineOptions({ inheritAttrs: false })
const emit = defineEmits<{ chosen: [files: File[]] }>()
const chooser = useTemplateRef<HTMLInputElement>('chooser')

function choose(): void {
  emit('chosen', [...chooser.value!.files ?? []])
  // the same one can be chosen again
  chooser.value!.value = ''
}
</script>

<template>
  <button
    v-bind="$attrs"
    type="button"
    @click="chooser?.click()"
  >
    <slot />
  </button>
  <input
    ref="chooser"
    type="file"
    hidden
    multiple
    accept="image/jpeg,image/png,image/gif,image/webp"
    @change="choose"
  >
</template>
