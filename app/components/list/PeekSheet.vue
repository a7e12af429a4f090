<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { ComposerStart } from '~~/shared/composer'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import type { TimelineEntry, TimelinePage } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { whyNotTexted } from '~/words/choices'
import { sayEntry } from '~/words/entries'
import { ago } from '~/words/time'

/** Who somebody is and what was last said, and a text from here, without leaving the list or the pipeline. */
const { recordId, texting = false } = defineProps<{ recordId: string, texting?: boolean }>()
const emit = defineEmits<{ close: [] }>()

const ENTRIES = 6
const now = useNow()
const { found, problem, load, trying } = useLoaded(() =>
  Promise.all([api<RecordDetail>(`/api/records/${recordId}`), api<TimelinePage>(`/api/records/${recordId}/timeline`)]),
)
watch(() => recordId, load)
const record = computed(() => found.value?.[0] ?? null)
const entries = computed(() => found.value?.[1].entries.slice(0, ENTRIES) ?? [])

const start = shallowRef<ComposerStart | null>(null)
const mayText = computed(() => record.value?.phones.some(phone => whyNotTexted(phone) === null) ?? false)
const sheet = useTemplateRef<HTMLElement>('sheet')

const text = () => trying(async () => {
  start.value = await api<ComposerStart>(`/api/records/${recordId}/composer`)
  await nextTick()
  sheet.value?.querySelector('textarea')?.focus()
})
watch(() => recordId, () => start.value = null)
watch(mayText, may => may && texting && !start.value ? void text() : undefined)
useKeys([{ keys: 't', shown: 'T', what: 'Text from the peek', act: () => mayText.value && void text() }])

const call = (phone: RecordPhone) => useCalls().dial({ phoneId: phone.id, name: phone.person?.name ?? record.value!.name })

const person = computed(() => record.value?.firstName ?? record.value?.name ?? '')
const say = (entry: TimelineEntry) => sayEntry(entry, entry.via?.name ?? person.value)
const about = computed(
  () =>
    record.value
    && [record.value.title ?? MODULE_FACTS[record.value.module].one, record.value.company?.name, record.value.city]
      .filter(Boolean)
      .join(', '),
)
</script>

<template>
  <aside
    ref="sheet"
    class="peek"
    :aria-label="record ? `Peek at ${record.name}` : 'Peek'"
  >
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <template v-else-if="record">
      <header class="head">
        <h2>{{ record.name }}</h2>
        <button
          type="button"
          class="plain-button calm"
          @click="emit('close')"
        >
          Close <kbd>P</kbd>
        </button>
      </header>
      <p class="quiet small">
        {{ about }}{{ record.stage ? `. ${record.stage.name}.` : '.' }}
      </p>
      <p class="ways">
        <NuxtLink
          class="go"
          :to="`/record/${record.id}`"
        >
          Open the record
        </NuxtLink>
        <button
          v-if="mayText && !start"
          type="button"
          class="plain-button"
          @click="text"
        >
          Text {{ record.people.length === 1 ? record.people[0]!.name : person }} <kbd>T</kbd>
        </button>
      </p>
      <RecordComposer
        v-if="start"
        :record="record"
        :start="start"
        @sent="load"
      />
      <NumberList
        :record="record"
        only-to-read
        @call="call"
      />
      <ol class="said">
        <li
          v-for="entry in entries"
          :key="entry.id"
          :class="entry.kind"
        >
          <span class="quiet small figures">{{ ago(entry.at, now) }}</span>
          <p>
            <strong>{{ say(entry).who }}</strong> {{ say(entry).what }}
          </p>
          <p v-if="entry.kind === 'note'">
            {{ entry.words }}
          </p>
        </li>
      </ol>
      <p
        v-if="entries.length === 0"
        class="quiet"
      >
        Nothing has been said yet.
      </p>
    </template>
  </aside>
</template>

<style scoped>
.peek { border-left: 1px solid var(--field-rule); padding-left: var(--space-7); display: grid; gap: var(--space-4); align-content: start; }
.head { display: flex; justify-content: space-between; align-items: baseline; gap: var(--space-6); }
.head h2 { font-size: var(--size-large); }
.ways { display: flex; justify-content: space-between; gap: var(--space-6); }
.go { font-weight: 700; }
.said { border-top: 1px solid var(--field-rule); }
.said li { padding: var(--space-2) 0 var(--space-2) var(--space-4); border-bottom: 1px solid var(--rule); border-left: 3px solid transparent; overflow-wrap: anywhere; }
.said .text-out { border-left-color: var(--accent); }
.said .text-in { border-left-color: var(--good); background: var(--good-ground); }
</style>
