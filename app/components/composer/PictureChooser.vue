<script setup lang="ts">
/** Chooses pictures from the computer; the button that opens it is with whoever has it. */
const emit = defineEmits<{ chosen: [files: File[]] }>()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
defineExpose({ open: () => chooser.value?.click() })

function choose(): void {
  emit('chosen', [...chooser.value!.files ?? []])
  // the same one can be chosen again
  chooser.value!.value = ''
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    hidden
    multiple
    accept="image/jpeg,image/png,image/gif,image/webp"
    @change="choose"
  >
</template>
