<script setup lang="ts">
import { useCallNotes } from '~/stores/call-notes'

/** What I note in a call, kept as it is typed. */
const { callId, kept, hint } = defineProps<{ callId: string, kept: string, hint: string }>()

const store = useCallNotes()
const notes = ref(store.of(callId) ?? kept)
const field = useTemplateRef<HTMLTextAreaElement>('field')
const problem = computed(() => store.problems[callId] ?? '')
watch(notes, words => store.write(callId, words))
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <label
    class="small quiet"
    for="call-notes"
  >Your notes{{ hint }}</label>
  <textarea
    id="call-notes"
    ref="field"
    v-model="notes"
    class="plain-field notes"
    rows="3"
    placeholder="What was said; it stands on the timeline"
  />
  <p
    v-if="problem"
    class="field-error"
    role="alert"
  >
    {{ problem }}
  </p>
</template>

<style scoped>
.notes { width: 100%; padding: var(--space-3) var(--space-5); resize: vertical; line-height: 1.4; }
</style>
