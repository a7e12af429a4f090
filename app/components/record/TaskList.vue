<script setup lang="ts">
import type { RecordDetail } from '~~/shared/record'
import type { TaskDetail } from '~~/shared/calling'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayMoment } from '~/words/moments'

/** What is to be done here and whom to call back, the next first, each to be ticked off or changed. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ changed: [] }>()

const me = useMe()
const now = useNow()
const { problem, trying } = useTrying()
const making = defineModel<boolean>('making', { required: true })
const changing = ref<string | null>(null)
/** Ticked a moment ago, to be undone. */
const ticked = shallowRef<TaskDetail | null>(null)

async function setDone(task: TaskDetail, done: boolean): Promise<void> {
  if (!await trying(() => api(`/api/tasks/${task.id}/done`, { method: 'POST', body: { done } }))) return
  ticked.value = done ? task : null
  emit('changed')
}

function kept(): void {
  making.value = false
  changing.value = null
  emit('changed')
}
</script>

<template>
  <div
    v-for="one in record.tasks"
    :key="one.id"
    class="task"
  >
    <TaskForm
      v-if="changing === one.id"
      class="whole"
      :record-id="record.id"
      :task="one"
      @kept="kept"
      @close="changing = null"
    />
    <template v-else>
      <input
        type="checkbox"
        :aria-label="`Done: ${one.title}`"
        @change="setDone(one, true)"
      >
      <strong :class="{ due: one.dueAt <= now }">{{ one.title }}</strong>
      <span class="small quiet figures when">{{ sayMoment(one) }}{{ one.owner.id === me.me?.id ? '' : `, ${one.owner.firstName}` }}
        <button
          v-if="record.mayEdit"
          type="button"
          class="plain-button calm"
          :aria-label="`Change ${one.title}`"
          @click="changing = one.id"
        >
          Change
        </button>
      </span>
    </template>
  </div>
  <p
    v-if="ticked"
    class="small"
    role="status"
  >
    Done: {{ ticked.title }}. <button
      type="button"
      class="plain-button"
      @click="setDone(ticked, false)"
    >
      Undo
    </button>
  </p>
  <TaskForm
    v-if="making"
    :record-id="record.id"
    @kept="kept"
    @close="making = false"
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
.task { display: grid; grid-template-columns: 1.4rem minmax(0, 1fr); align-items: baseline; border-top: 1px solid var(--rule); padding-top: var(--space-2); }
.task > input { width: 16px; height: 16px; align-self: center; }
.task .due { color: var(--waiting); }
.when { grid-column: 2; }
.whole { grid-column: 1 / -1; }
</style>
