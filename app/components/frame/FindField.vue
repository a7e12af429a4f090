<script setup lang="ts">
import { PhMagnifyingGlass } from '@phosphor-icons/vue'
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordRow } from '~~/shared/record'
import { showPhone } from '~~/core/phone/show'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'

const field = useTemplateRef<HTMLElement>('field')
const chosen = ref<RecordRow | string | null>(null)
const found = shallowRef<RecordRow[]>([])
const empty = ref('Nobody and nothing by that name or number.')

async function find(words: string): Promise<void> {
  try {
    found.value = await api<RecordRow[]>('/api/find', { query: { words } })
    empty.value = 'Nobody and nothing by that name or number.'
  }
  catch (error) {
    found.value = []
    empty.value = error instanceof Error ? error.message : ''
  }
}

async function go(row: RecordRow): Promise<void> {
  chosen.value = null
  await navigateTo(`/record/${row.id}`)
}

useKeys([{ keys: '/', shown: '/', what: 'Find a person, a company or a number', act: () => field.value?.querySelector('input')?.focus() }])
</script>

<template>
  <search
    ref="field"
    class="find"
  >
    <PhMagnifyingGlass
      size="18"
      aria-hidden="true"
    />
    <AutoComplete
      v-model="chosen"
      input-id="find"
      :suggestions="found"
      option-label="name"
      placeholder="Find a person, a company, a number"
      aria-label="Find a person, a company, a number"
      :delay="120"
      :min-length="2"
      :empty-search-message="empty"
      class="find-input"
      @complete="find($event.query)"
      @option-select="go($event.value as RecordRow)"
    >
      <template #option="{ option }">
        <span>
          <strong>{{ option.name }}</strong>
          <span class="quiet small"> {{ MODULE_FACTS[option.module as RecordRow['module']].one }}<template v-if="option.company">, {{ option.company.name }}</template><template v-if="option.phone">, {{ option.phone.startsWith('+') ? showPhone(option.phone) : option.phone }}</template></span>
        </span>
      </template>
    </AutoComplete>
    <kbd aria-hidden="true">/</kbd>
  </search>
</template>

<style scoped>
.find { display: flex; align-items: center; gap: 0.5rem; flex: 0 1 520px; border-bottom: 1px solid var(--quiet); color: var(--quiet); min-width: 0; }
.find-input { flex: 1; min-width: 0; }
.find :deep(input) { border: 0; background: none; width: 100%; padding-left: 0; box-shadow: none; }
.find:focus-within { border-color: var(--mulberry); box-shadow: 0 1px 0 var(--mulberry); }
.find :deep(input:focus-visible) { outline: none; }
@media (max-width: 480px) { .find kbd { display: none; } }
</style>
