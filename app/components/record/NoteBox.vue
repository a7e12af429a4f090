<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useTrying } from '~/composables/trying'
import { useDrafts } from '~/stores/drafts'

const { recordId } = defineProps<{ recordId: string }>()
const drafts = useDrafts()
const key = `note ${recordId}`
const words = computed({ get: () => drafts.of(key).text, set: text => drafts.keep(key, { text }) })
const open = ref(words.value !== '')
const field = useTemplateRef<HTMLTextAreaElement>('field')
const { problem: error, trying } = useTrying()
let id = uuid()

async function begin(): Promise<void> {
  open.value = true
  await nextTick()
  field.value?.focus()
}

const save = () => trying(async () => {
  await api(`/api/records/${recordId}/notes`, { method: 'POST', body: { id, words: words.value } })
  id = uuid()
  drafts.drop(key)
  open.value = false
})

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape') open.value = false
  else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void save()
}

useKeys([{ keys: 'n', shown: 'N', what: 'Write a note for colleagues', act: () => void begin() }])
</script>

<template>
  <div class="note">
    <button
      v-if="!open"
      type="button"
      class="plain-button calm"
      @click="begin"
    >
      Note for colleagues <kbd>N</kbd>
    </button>
    <template v-else>
      <label
        for="note"
        class="heard-only"
      >Note for colleagues</label>
      <textarea
        id="note"
        ref="field"
        v-model="words"
        rows="2"
        placeholder="For colleagues only"
        @keydown="onKey"
      />
      <p
        v-if="error"
        class="field-error"
        role="alert"
      >
        {{ error }}
      </p>
      <p class="acts">
        <Button
          size="small"
          label="Save the note"
          severity="secondary"
          :disabled="words.trim() === ''"
          @click="save"
        />
        <button
          type="button"
          class="plain-button calm"
          @click="open = false"
        >
          Later
        </button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.note textarea { width: 100%; border: 1px solid var(--field-rule); border-left: 3px solid var(--waiting); border-radius: var(--round-small); background: var(--surface); padding: var(--space-3) var(--space-5); resize: vertical; }
.acts { display: flex; gap: var(--space-6); align-items: center; padding-top: var(--space-2); }
</style>
