<script setup lang="ts">
import type { WallMoment } from '~~/core/hours/schedule'
import type { RecordDetail, ScheduledText } from '~~/shared/record'
import type { TakenBack } from '~~/shared/texting'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayMoment } from '~/words/moments'

/** Texts that are to leave later, each to be put to another time, sent at once, or taken back by whoever wrote it. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ 'changed': [activityId: string], 'taken-back': [back: TakenBack] }>()

const me = useMe()
const changing = ref<string | null>(null)
const { problem, busy, trying } = useTrying()

async function act(one: ScheduledText, work: () => Promise<unknown>): Promise<void> {
  if (!await trying(work)) return
  changing.value = null
  emit('changed', one.activityId)
}
const put = (one: ScheduledText, later: WallMoment | null) =>
  act(one, () => api(`/api/texts/${one.id}/schedule`, { method: 'PUT', body: { later } }))
/** Its words go back to where texts are written, so that none are lost. */
const takeBack = (one: ScheduledText, toChange: boolean) => act(one, async () => {
  const back = await api<TakenBack>(`/api/texts/${one.id}/take-back`, { method: 'POST', body: {} })
  emit('taken-back', toChange ? back : { ...back, later: null })
})
</script>

<template>
  <div
    v-for="one in record.scheduled"
    :key="one.id"
    class="scheduled"
  >
    <strong v-if="one.optedOut">Will not leave: the number has opted out</strong>
    <strong v-else>Text at {{ sayMoment(one) }}</strong>
    <span class="words">{{ one.words }}</span>
    <span
      v-if="one.authorId !== me.me?.id"
      class="small quiet"
    >by {{ one.author }}</span>
    <LazyLaterPanel
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
        v-if="!one.optedOut"
        type="button"
        class="plain-button"
        @click="changing = one.id; problem = ''"
      >Change the time</button>
      <button
        v-if="!one.optedOut"
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="put(one, null)"
      >Send now</button>
      <button
        v-if="!one.optedOut"
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="takeBack(one, true)"
      >Change the words</button>
      <button
        type="button"
        class="plain-button calm"
        :disabled="busy"
        @click="takeBack(one, false)"
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
.scheduled { display: grid; gap: var(--space-hair); border-top: 1px solid var(--rule); padding-top: var(--space-2); }
.scheduled strong { color: var(--waiting); }
.words { overflow: hidden; display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); }
</style>
