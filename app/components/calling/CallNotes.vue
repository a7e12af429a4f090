<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** What I note in a call, kept as it is typed. */
const { callId, kept, hint } = defineProps<{ callId: string, kept: string, hint: string }>()

const notes = ref(kept)
const field = useTemplateRef<HTMLTextAreaElement>('field')
const unsaved = ref(false)
const { problem, trying } = useTrying()

const saveSoon = useDebounceFn(save, 500)
watch(notes, () => {
  unsaved.value = true
  void saveSoon()
})
async function save(): Promise<void> {
  const words = notes.value
  const went = await trying(() => api(`/api/calls/${callId}/notes`, { method: 'PUT', body: { notes: words } }))
  if (went && words === notes.value) unsaved.value = false
}
onBeforeUnmount(() => unsaved.value && void save())
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
