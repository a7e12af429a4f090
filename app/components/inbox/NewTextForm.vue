<script setup lang="ts">
import type { NamedRecord, RecordDetail } from '~~/shared/record'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Begins a conversation: with somebody found by typing, or with a number that may be on no record. */
const emit = defineEmits<{ begun: [conversationId: string], close: [] }>()
const person = ref<{ id: string, name: string } | string | null>(null)
const number = ref('')
const { problem, errors, busy, trying } = useTrying()

const begin = (typed: string) => trying(async () => {
  const { conversationId } = await api<{ conversationId: string }>('/api/conversations', { method: 'POST', body: { typed, onRecord: true } })
  emit('begun', conversationId)
})

async function pick({ id, name }: NamedRecord): Promise<void> {
  let typed: string | null = null
  await trying(async () => {
    const { phones } = await api<RecordDetail>(`/api/records/${id}`)
    typed = phones.find(({ e164, kind, consent }) => e164 && kind !== 'landline' && consent.texts !== 'refused')?.e164 ?? null
  })
  if (typed) await begin(typed)
  else if (!problem.value) problem.value = `${name} has no number that takes texts.`
}

const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector<HTMLInputElement>('input')?.focus())
</script>

<template>
  <form
    ref="form"
    class="new-text"
    aria-label="New text"
    @submit.prevent="number.trim() && begin(number)"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <LabelledField
      id="new-text-person"
      v-slot="{ choice }"
      label="To somebody"
    >
      <RecordPicker
        v-model="person"
        kind="person"
        :choice="choice"
        placeholder="A name"
        @picked="pick"
      />
    </LabelledField>
    <LabelledField
      id="new-text-number"
      v-slot="{ input }"
      label="or to a number"
      :error="errors.typed"
    >
      <InputText
        v-bind="input"
        v-model="number"
        inputmode="tel"
        autocomplete="off"
      />
    </LabelledField>
    <Button
      type="submit"
      size="small"
      label="Write"
      :disabled="number.trim() === ''"
      :loading="busy"
    />
    <button
      type="button"
      class="plain-button calm"
      @click="emit('close')"
    >
      Cancel
    </button>
    <p
      v-if="problem && !errors.typed"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </form>
</template>

<style scoped>
.new-text { display: flex; flex-wrap: wrap; gap: var(--space-4) var(--space-6); align-items: end; padding: 0 var(--space-6) var(--space-5); }
.field-error { flex-basis: 100%; }
</style>
