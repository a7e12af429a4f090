<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { RecordDetail } from '~~/shared/record'
import type { TaskDetail } from '~~/shared/calling'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayMoment } from '~/words/moments'

/** What is to be done here and whom to call back, the next first, each to be ticked off. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ changed: [] }>()

const me = useMe()
const now = useNow()
const { problem, errors, trying } = useTrying()
const form = ref({ id: uuid(), title: '', day: '', time: '09:00' })
const making = defineModel<boolean>('making', { required: true })

async function change(work: () => Promise<unknown>): Promise<boolean> {
  const went = await trying(work)
  if (went) emit('changed')
  return went
}
const tick = ({ id }: TaskDetail) => change(() => api(`/api/tasks/${id}/done`, { method: 'POST', body: { done: true } }))
async function make(): Promise<void> {
  if (!await change(() => api(`/api/records/${record.id}/tasks`, { method: 'POST', body: form.value }))) return
  form.value = { id: uuid(), title: '', day: '', time: '09:00' }
  making.value = false
}
const title = useTemplateRef<HTMLInputElement>('title')
watch(making, open => open && nextTick(() => title.value?.focus()))
</script>

<template>
  <p
    v-for="one in record.tasks"
    :key="one.id"
    class="task"
  >
    <input
      type="checkbox"
      :aria-label="`Done: ${one.title}`"
      @change="tick(one)"
    >
    <strong :class="{ due: one.dueAt <= now }">{{ one.title }}</strong>
    <span class="small quiet figures when">{{ sayMoment(one) }}{{ one.owner.id === me.me?.id ? '' : `, ${one.owner.firstName}` }}</span>
  </p>
  <form
    v-if="making"
    class="make"
    @submit.prevent="make"
    @keydown.esc.stop="making = false"
  >
    <input
      ref="title"
      v-model="form.title"
      class="plain-field"
      aria-label="What is to be done"
      placeholder="What is to be done"
      :aria-invalid="!!errors.title"
    >
    <input
      v-model="form.day"
      class="plain-field"
      type="date"
      aria-label="Day"
      :aria-invalid="!!errors.day"
    >
    <input
      v-model="form.time"
      class="plain-field"
      type="time"
      aria-label="Time there"
      :aria-invalid="!!errors.time"
    >
    <button
      type="submit"
      class="plain-button"
    >
      Keep it
    </button>
  </form>
  <p
    v-if="problem"
    class="field-error"
    role="alert"
  >
    {{ problem }}
  </p>
</template>

<style scoped>
.task { display: grid; grid-template-columns: 1.4rem minmax(0, 1fr); align-items: baseline; border-top: 1px solid var(--rule); padding-top: var(--space-2); }
.task input { width: 16px; height: 16px; align-self: center; }
.task .due { color: var(--waiting); }
.when { grid-column: 2; }
.make { display: flex; flex-wrap: wrap; gap: var(--space-2); border-top: 1px solid var(--rule); padding-top: var(--space-3); }
.make input { padding: var(--space-1) var(--space-3); }
.make input:first-child { flex: 1 1 100%; }
</style>
