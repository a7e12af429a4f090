<script setup lang="ts">
import type { MessageState } from '~~/core/message/states'
import { STATE_WORDS } from '~~/core/message/words'
import { showPhone } from '~~/core/phone/show'
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import type { TimelineEntry, TimelinePage } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayEntry } from '~/words/entries'
import { clock, dayName } from '~/words/time'

/** A record's whole timeline, the oldest first, to be put on paper. */
definePageMeta({ layout: 'bare' })

const recordId = String(useRoute().params.id)
const zone = useMe().me!.zone
const now = Date.now()
const record = shallowRef<RecordDetail | null>(null)
const entries = shallowRef<TimelineEntry[]>([])
const ready = ref(false)
const { problem, trying } = useTrying()
let stopped = false
onBeforeUnmount(() => stopped = true)

const load = () => trying(async () => {
  record.value = await api<RecordDetail>(`/api/records/${recordId}`)
  entries.value = []
  let last: TimelineEntry | undefined
  for (let more = true; more && !stopped;) {
    const page: TimelinePage = await api(`/api/records/${recordId}/timeline`, { query: last ? { beforeAt: last.at, beforeId: last.id } : {} })
    entries.value = [...[...page.entries].reverse(), ...entries.value]
    last = page.entries.at(-1)
    more = page.more && !!last
  }
  ready.value = !stopped
})
void load()

const person = computed(() => record.value?.firstName ?? record.value?.name ?? '')
const withWhom = (entry: TimelineEntry) => entry.meantFor?.name ?? entry.via?.name ?? person.value

function say(entry: TimelineEntry): string {
  const { message } = entry
  if (!message) return `${sayEntry(entry, withWhom(entry)).who} ${sayEntry(entry, withWhom(entry)).what}`
  return message.direction === 'in'
    ? `${withWhom(entry)} to ${message.line.name}, from ${showPhone(message.remote, true)}`
    : `${entry.colleague?.firstName ?? 'Plauder'} to ${showPhone(message.remote, true)}, from ${message.line.name}. ${STATE_WORDS[message.state as MessageState]}`
}

const words = (entry: TimelineEntry) => entry.message || entry.kind === 'note' || entry.kind.startsWith('call') ? entry.words : null
const print = () => window.print()
</script>

<template>
  <main class="print">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <template v-else-if="record">
      <p
        class="not-printed"
        role="status"
      >
        <Button
          label="Print"
          :disabled="!ready"
          @click="print"
        />
        {{ ready ? `${entries.length.toLocaleString('en-US')} entries.` : `${entries.length.toLocaleString('en-US')} entries so far…` }}
      </p>
      <h1>{{ record.name }}</h1>
      <p class="quiet">
        {{ MODULE_FACTS[record.module].one }}<template v-if="record.company">, {{ record.company.name }}</template>. As of {{ dayName(now, zone, 0) }}, {{ clock(now, zone) }}.
      </p>
      <ol>
        <li
          v-for="entry in entries"
          :key="entry.id"
        >
          <p class="quiet small">
            <span class="figures">{{ dayName(entry.at, zone, 0) }}, {{ clock(entry.at, zone) }}</span>. <bdi>{{ say(entry) }}</bdi>
          </p>
          <p
            v-if="words(entry)"
            class="words"
            dir="auto"
          >
            {{ words(entry) }}
          </p>
        </li>
      </ol>
    </template>
    <p
      v-else
      class="quiet"
      role="status"
    >
      Opening the record…
    </p>
  </main>
</template>

<style scoped>
.print { max-width: 46rem; margin: 0 auto; padding: var(--space-8); }
.not-printed { display: flex; gap: var(--space-5); align-items: center; padding-bottom: var(--space-6); }
li { padding: var(--space-3) 0; border-top: 1px solid var(--rule); break-inside: avoid; }
.words { white-space: pre-wrap; overflow-wrap: anywhere; }
@media print { .not-printed { display: none; } .print { padding: 0; max-width: none; } }
</style>
