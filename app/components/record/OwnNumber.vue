<script setup lang="ts">
import { showPhone } from '~~/core/phone/show'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { whyNotTexted } from '~/words/choices'

/**
 * A telephone number in a field of the firm's own. It is texted and called like any other once it is among the record's numbers,
 * where it has its consent and its ledger; one press puts it there.
 */
const { record, label, number } = defineProps<{ record: RecordDetail, label: string, number: string }>()
const emit = defineEmits<{ text: [phone: RecordPhone], call: [phone: RecordPhone], added: [] }>()

const phone = computed(() => record.phones.find(({ e164 }) => e164 === number))
const { problem, busy, trying } = useTrying()

async function add(): Promise<void> {
  const before = record.phones.filter(({ person }) => person === null).map(({ id, label, typed }) => ({ id, label, typed }))
  const phones = [...before, { id: null, label: label.toLowerCase().slice(0, 30), typed: number }]
  if (await trying(() => api(`/api/records/${record.id}`, { method: 'PUT', body: { version: record.version, phones, was: { phones: before } } })))
    emit('added')
}
</script>

<template>
  <span class="figures">{{ showPhone(number) }}</span>
  <span class="acts">
    <template v-if="phone">
      <button
        v-if="!whyNotTexted(phone)"
        type="button"
        class="plain-button"
        @click="emit('text', phone)"
      >
        Text
      </button>
      <button
        v-if="phone.mayBeCalled"
        type="button"
        class="plain-button"
        @click="emit('call', phone)"
      >
        Call
      </button>
    </template>
    <button
      v-else-if="record.mayEdit"
      type="button"
      class="plain-button"
      :disabled="busy"
      @click="add"
    >
      Add to numbers, to text and call
    </button>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </span>
</template>

<style scoped>
.acts { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-5); }
</style>
