<script setup lang="ts">
import { holdsPeople, isPersonModule, MODULE_FACTS } from '~~/shared/modules'
import type { NamedRecord, RecordDetail } from '~~/shared/record'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Who works at a company, or who is on a deal, a job, a case or something with a day; put on and taken off here. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ changed: [] }>()

const takesPeople = computed(() => record.mayEdit && holdsPeople(record.module))
/** Candidates stand in their pipeline already. */
const showing = ref(record.module !== 'job')
const adding = ref(false)
const chosen = ref<{ id: string, name: string } | string | null>(null)
const { problem, trying } = useTrying()
const picker = useTemplateRef<HTMLElement>('picker')

async function add(): Promise<void> {
  adding.value = true
  await nextTick()
  picker.value?.querySelector('input')?.focus()
}

async function change(method: 'PUT' | 'DELETE', personId: string): Promise<void> {
  if (await trying(() => api(`/api/records/${record.id}/people/${personId}`, { method }))) emit('changed')
}

async function put({ id }: NamedRecord): Promise<void> {
  await change('PUT', id)
  chosen.value = null
  adding.value = false
}
</script>

<template>
  <section v-if="!isPersonModule(record.module) && (record.people.length > 0 || takesPeople)">
    <h2>{{ record.module === 'job' ? 'Candidates' : 'People' }}</h2>
    <ul
      v-if="showing"
      class="people"
    >
      <li
        v-for="person in record.people"
        :key="person.id"
      >
        <span>
          <NuxtLink :to="`/record/${person.id}`">{{ person.name }}</NuxtLink>
          <span class="quiet small about">{{ person.stage ?? person.title ?? MODULE_FACTS[person.module].one.toLowerCase() }}</span>
        </span>
        <button
          v-if="takesPeople"
          type="button"
          class="plain-button calm small"
          :aria-label="`Remove ${person.name}`"
          @click="change('DELETE', person.id)"
        >
          Take off
        </button>
      </li>
    </ul>
    <button
      v-if="!showing && record.people.length > 0"
      type="button"
      class="plain-button calm all"
      @click="showing = true"
    >
      Show all {{ record.people.length }}
    </button>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
    <div
      v-if="takesPeople && adding"
      ref="picker"
    >
      <RecordPicker
        v-model="chosen"
        kind="person"
        :choice="{ 'aria-label': 'Whom to put on it' }"
        placeholder="A name"
        @picked="put"
        @keydown.esc="adding = false"
      />
    </div>
    <button
      v-else-if="takesPeople"
      type="button"
      class="plain-button"
      @click="add"
    >
      Put somebody on it
    </button>
  </section>
</template>

<style scoped>
.people li { display: flex; justify-content: space-between; gap: var(--space-5); border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
.about { margin-left: var(--space-2); }
.all { display: block; padding-bottom: var(--space-2); }
h2 { padding-bottom: var(--space-2); }
</style>
