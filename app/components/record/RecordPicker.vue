<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { NamedRecord } from '~~/shared/record'
import { api } from '~/composables/api'

/** Chooses one record by a part of its name: a person, a company, or a deal, job or case. */
const {
  kind,
  choice,
  placeholder = '',
} = defineProps<{ kind: 'person' | 'company' | 'matter', choice: Record<string, unknown>, placeholder?: string }>()
const chosen = defineModel<{ id: string, name: string } | string | null>({ required: true })
const emit = defineEmits<{ picked: [record: NamedRecord] }>()

const NOBODY = {
  person: 'Nobody by that name yet.',
  company: 'No company by that name yet.',
  matter: 'No deal, job or case by that name yet.',
}
const found = shallowRef<NamedRecord[]>([])

async function find(words: string): Promise<void> {
  found.value = await api<NamedRecord[]>('/api/records/named', { query: { kind, words } }).catch(() => [])
}

/** As it is seen and heard in the list. */
const about = ({ module, about }: NamedRecord) => [kind === 'company' ? null : MODULE_FACTS[module].one, about].filter(Boolean).join(', ')
</script>

<template>
  <AutoComplete
    v-bind="choice"
    v-model="chosen"
    option-label="name"
    :suggestions="found"
    :placeholder="placeholder"
    force-selection
    dropdown
    auto-option-focus
    :pt="{ dropdown: { 'aria-label': 'Show what there is' } }"
    :empty-search-message="NOBODY[kind]"
    @complete="find($event.query)"
    @option-select="emit('picked', $event.value as NamedRecord)"
  >
    <template #option="{ option }">
      <span>{{ option.name }} <span class="small quiet">{{ about(option as NamedRecord) }}</span></span>
    </template>
  </AutoComplete>
</template>
