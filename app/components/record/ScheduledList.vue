<script setup lang="ts">
import type { WallMoment } from '~~/core/hours/schedule'
import type { RecordDetail, ScheduledText } from '~~/shared/record'
import { api, ApiProblem } from '~/composables/api'
import { useMe } from '~/stores/me'
import { sayMoment } from '~/words/moments'

/** Texts that are to leave later, each to be put to another time, sent at once, or taken back by whoever wrote it. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ changed: [activityId: string] }>()

const me = useMe()
const changing = ref<string | null>(null)
const problem = ref('')
const busy = ref(false)

async function act(one: ScheduledText, work: () => Promise<unknown>): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    await work()
    changing.value = null
    emit('changed', one.activityId)
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = String(Object.values(error.fields)[0] ?? error.message)
  }
  finally {
    busy.value = false
  }
}
const put = (one: ScheduledText, later: WallMoment | null) => act(one, () => api(`/api/texts/${one.id}/schedule`, { method: 'PUT', body: { later } }))
const takeBack = (one: ScheduledText) => act(one, () => api(`/api/texts/${one.id}/take-back`, { method: 'POST', body: {} }))
</script>

<template>
  <div
    v-for="one in record.scheduled"
    :key="one.id"
    class="scheduled"
  >
    <strong>Text at {{ sayMoment(one) }}</strong>
    <span class="words">{{ one.words }}</span>
    <span
      v-if="one.authorId !== me.me?.id"
      class="small quiet"
    >by {{ one.author }}</span>
    <LaterPanel
      v-else-if="changing === one.id"
      :theirs="record.zones"
      :person="record.firstName ?? record.name"
      :moment="one"
      :problem="problem"
      :busy="busy"
      @choose="put(one, $event)"
      @close="changing = null"
    />
    <span
      v-else
      class="acts small"
    >
      <button
        type="button"
        class="plain-button"
        @click="changing = one.id; problem = ''"
      >Change the time</button>
      <button
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="put(one, null)"
      >Send now</button>
      <button
        type="button"
        class="plain-button calm"
        :disabled="busy"
        @click="takeBack(one)"
      >Take back</button>
    </span>
    <p
      v-if="problem && changing !== one.id"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.scheduled { display: grid; gap: 0.15rem; border-top: 1px solid var(--rule); padding-top: 0.4rem; }
.scheduled strong { color: var(--saffron); }
.words { overflow: hidden; display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; }
.acts { display: flex; flex-wrap: wrap; gap: 0.2rem 1rem; }
</style>
