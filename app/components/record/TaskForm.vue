<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { TaskDetail } from '~~/shared/calling'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Something to do on a record, by the clock where its person is: new, or put in other words, to another time, to another colleague. */
const { recordId, task = null } = defineProps<{ recordId: string, task?: TaskDetail | null }>()
const emit = defineEmits<{ kept: [], close: [] }>()

const { problem, errors, busy, trying } = useTrying()
const form = ref({
  title: task?.title ?? '',
  day: task?.wallTime.slice(0, 10) ?? '',
  time: task?.wallTime.slice(11) ?? '09:00',
  colleagueId: task?.owner.id ?? '',
})
const id = uuid()
const colleagues = shallowRef<{ id: string, name: string }[]>([])
const title = useTemplateRef<HTMLInputElement>('title')
onMounted(async () => {
  title.value?.focus()
  if (task) colleagues.value = await api<{ id: string, name: string }[]>('/api/colleagues').catch(() => [])
})

async function keep(): Promise<void> {
  const { title, day, time } = form.value
  const went = await trying(() => task
    ? api(`/api/tasks/${task.id}`, { method: 'PUT', body: form.value })
    : api(`/api/records/${recordId}/tasks`, { method: 'POST', body: { id, title, day, time } }))
  if (went) emit('kept')
}
</script>

<template>
  <form
    class="make"
    @submit.prevent="keep"
    @keydown.esc.stop="emit('close')"
  >
    <input
      ref="title"
      v-model="form.title"
      class="plain-field"
      aria-label="What is to be done"
      placeholder="What is to be done"
      :aria-invalid="!!errors.title"
    >
    <DayField
      v-model="form.day"
      aria-label="Day"
      :aria-invalid="!!errors.day"
    />
    <TimeField
      v-model="form.time"
      aria-label="Time there"
      :aria-invalid="!!errors.time"
    />
    <select
      v-if="task && colleagues.length > 1"
      v-model="form.colleagueId"
      class="plain-field"
      aria-label="Who does it"
      :aria-invalid="!!errors.colleagueId"
    >
      <option
        v-for="one in colleagues"
        :key="one.id"
        :value="one.id"
      >
        {{ one.name }}
      </option>
    </select>
    <button
      type="submit"
      class="plain-button"
      :disabled="busy"
    >
      Save
    </button>
    <button
      type="button"
      class="plain-button calm"
      @click="emit('close')"
    >
      Cancel
    </button>
    <p
      v-if="problem"
      class="field-error wide"
      role="alert"
    >
      {{ problem }}
    </p>
  </form>
</template>

<style scoped>
.make { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-4); align-items: baseline; border-top: 1px solid var(--rule); padding-top: var(--space-3); }
.make .plain-field { padding: var(--space-1) var(--space-3); }
.make > :first-child, .wide { flex: 1 1 100%; }
</style>
