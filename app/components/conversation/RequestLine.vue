<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { findRequest } from '~~/core/request/find'
import type { ZoneRules } from '~~/core/hours/rules'
import { wallOf } from '~~/core/hours/schedule'
import type { TimelineEntry } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { sayMoment } from '~/words/moments'

/** What they ask for in a text, as far as its words tell, proposed as a task: a key accepts it, another one sends it away. */
const { recordId, entries, zone, person } = defineProps<{
  recordId: string
  /** The newest first. */
  entries: TimelineEntry[]
  /** Where they are. */
  zone: ZoneRules
  person: string
}>()
const emit = defineEmits<{ changed: [activityId: string] }>()

/** What was asked for longer ago has been dealt with in another way. */
const LASTS_MS = 7 * 86_400_000
const HOUR_MS = 3_600_000
/** As much of it as a task's title has room for. */
const MOST_SAID = 150
const now = useNow()
const { problem, busy, trying } = useTrying()

const found = computed(() => {
  for (const { id, at, words, message } of entries) {
    if (message?.direction !== 'in' || message.requestSettled || at < now.value - LASTS_MS || !words) continue
    const request = findRequest(words, wallOf(at, zone))
    if (request) return { id, ...request }
  }
  return null
})
/** Where they name no day or no hour: within the hour, or when that day begins. */
const due = computed(() => {
  const soon = wallOf(now.value + HOUR_MS, zone)
  const day = found.value?.day ?? soon.slice(0, 10)
  const time = found.value?.time ?? (day === soon.slice(0, 10) ? `${soon.slice(11, 14)}00` : '09:00')
  return { day, time }
})
const moment = computed(() => sayMoment({ wallTime: `${due.value.day}T${due.value.time}`, zone: zone.name }))

const settle = (task: object | null) => trying(async () => {
  const activityId = found.value!.id
  await api(`/api/records/${recordId}/request`, { method: 'POST', body: { activityId, task } })
  emit('changed', activityId)
})
const accept = () => settle({
  id: uuid(),
  kind: found.value!.kind === 'call' ? 'call-back' : 'task',
  title: `${found.value!.kind === 'call' ? 'Call back' : 'Send what was asked for'}: “${found.value!.said.slice(0, MOST_SAID)}”`,
  ...due.value,
})
const asked = () => found.value !== null && !busy.value
useKeys([
  { keys: 'y', shown: 'Y', what: 'Make a task of what they ask for', when: asked, act: () => void accept() },
  { keys: 'u', shown: 'U', what: 'No task of what they ask for', when: asked, act: () => void settle(null) },
])
</script>

<template>
  <p
    v-if="found"
    class="request"
  >
    <span><strong>{{ person }} {{ found.kind === 'call' ? 'asks for a call' : 'asks you to send something' }}:</strong> “<bdi>{{ found.said }}</bdi>”</span>
    <button
      type="button"
      class="plain-button"
      :disabled="busy"
      @click="accept"
    >
      Make a task for {{ moment }} <kbd>Y</kbd>
    </button>
    <button
      type="button"
      class="plain-button calm"
      :disabled="busy"
      @click="settle(null)"
    >
      No task <kbd>U</kbd>
    </button>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </p>
</template>

<style scoped>
.request { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); align-items: baseline; border-left: 3px solid var(--waiting); padding-left: var(--space-5); overflow-wrap: anywhere; }
</style>
