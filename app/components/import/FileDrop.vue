<script setup lang="ts">
/** Takes one file, dropped or chosen. */
const emit = defineEmits<{ file: [file: File] }>()
const over = ref(false)

function take(files: FileList | null | undefined): void {
  over.value = false
  if (files?.[0]) emit('file', files[0])
}
</script>

<template>
  <label
    class="drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <strong>Choose a file, or drop it here</strong>
    <span class="quiet">A table (CSV) as any spreadsheet writes it, or contacts (vCard) as a telephone does. Nothing is imported before you have seen what becomes of each row.</span>
    <input
      type="file"
      accept=".csv,.txt,.tsv,.vcf,.vcard,text/csv,text/vcard"
      @change="take(($event.target as HTMLInputElement).files)"
    >
  </label>
</template>

<style scoped>
.drop { display: grid; gap: var(--space-2); justify-items: start; padding: var(--space-8) var(--space-7); border: 1.5px dashed var(--field-rule); border-radius: var(--round-large); background: var(--surface); cursor: pointer; }
.drop.over { border-color: var(--accent); background: var(--accent-ground); }
.drop:focus-within { border-color: var(--accent); }
input { margin-top: var(--space-2); }
</style>
