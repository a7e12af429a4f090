<script setup lang="ts">
import type { RecordDetail } from '~~/shared/record'

/** A record's form over its page; what is typed is asked about before it is left. */
defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ saved: [record: RecordDetail], close: [] }>()

const form = useTemplateRef<{ mayLeave: () => Promise<boolean> }>('form')
async function close(): Promise<void> {
  if (await form.value?.mayLeave() ?? true) emit('close')
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`Change ${record.name}`"
    :style="{ width: '44rem' }"
    @update:visible="close"
  >
    <RecordForm
      ref="form"
      :module="record.module"
      :record="record"
      @saved="emit('saved', $event)"
    />
  </Dialog>
</template>
