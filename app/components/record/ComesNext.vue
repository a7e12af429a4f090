<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import type { TakenBack } from '~~/shared/texting'
import { useNow } from '~/composables/now'
import { useShelf } from '~/stores/shelf'
import { calendarDay, timeOfDay, span } from '~/words/time'

/** What is to be done next: whom to answer, tasks, texts that leave later, and the next days. */
const { record } = defineProps<{ record: RecordDetail }>()
/** Whether a task is being made. */
const making = defineModel<boolean>('making', { required: true })
const emit = defineEmits<{ 'changed': [], 'entry': [activityId: string], 'taken-back': [back: TakenBack] }>()

const shelf = useShelf()
const now = useNow()
/** Once there was one the list stays, so that what was ticked can be undone. */
const hasTasks = ref(false)
watch(() => record.tasks.length, count => hasTasks.value ||= count > 0, { immediate: true })
const waiting = computed(() => shelf.items.filter(item => item.record?.id === record.id))
/** The next that have a day, those that are overdue first. */
const dates = computed(() => record.related.filter(({ over, day }) => !over && day).slice(0, 2))

function unscheduled(activityId: string): void {
  emit('entry', activityId)
  emit('changed')
}
</script>

<template>
  <section v-if="waiting.length + dates.length + record.scheduled.length + record.tasks.length > 0 || record.mayEdit">
    <h2>Comes next</h2>
    <p
      v-for="item in waiting"
      :key="item.conversationId"
      class="next"
    >
      <strong>Answer {{ record.firstName ?? record.name }}</strong>
      <span class="small quiet">waiting for {{ span(now - item.waitsSince) }}, on {{ item.line }}</span>
    </p>
    <LazyTaskList
      v-if="hasTasks || making"
      v-model:making="making"
      :record="record"
      @changed="emit('changed')"
    />
    <LazyScheduledList
      v-if="record.scheduled.length > 0"
      :record="record"
      @changed="unscheduled"
      @taken-back="emit('taken-back', $event)"
    />
    <p
      v-for="one in dates"
      :key="one.id"
      class="next"
    >
      <NuxtLink :to="`/record/${one.id}`">
        {{ one.name }}
      </NuxtLink>
      <span class="small quiet figures">{{ [MODULE_FACTS[one.module].one, calendarDay(one.day!), one.time && timeOfDay(one.time)].filter(Boolean).join(', ') }}</span>
    </p>
    <button
      v-if="record.mayEdit && !making"
      type="button"
      class="plain-button calm make"
      @click="making = true"
    >
      Make a task <kbd>K</kbd>
    </button>
  </section>
</template>

<style scoped>
.next { display: grid; border-top: 1px solid var(--rule); padding: var(--space-2) 0 var(--space-2); }
.make { padding-top: var(--space-2); }
.next strong { color: var(--waiting); }
h2 { padding-bottom: var(--space-2); }
</style>
